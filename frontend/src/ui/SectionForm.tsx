import type { ReactNode } from "react";
import { Alert, Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { useTelling } from "./Notice";
import { SideBySide } from "./SideBySide";
import type { useSection } from "./useSection";

type Props = {
  title: string;
  lead?: string;
  may: boolean;
  section: ReturnType<typeof useSection>;
  /** The fields that show their own problem. */
  fields: string[];
  children: ReactNode;
};

/** A section's form: its head, its fields, and the row to save or discard what was typed. */
export function SectionForm({ title, lead, may, section, fields, children }: Props) {
  const { t } = useTranslation();
  const { tell } = useTelling();
  const { values, dirty, problem, theirs } = section;
  if (!values) return null;
  const save = async (over = false) => {
    if (await section.save(over)) tell(t("setup.channel.saved"));
  };
  return (
    <Form
      noValidate
      className="section-form"
      onSubmit={(event) => {
        event.preventDefault();
        // Leaving the field that is being typed in commits its list first.
        if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
        setTimeout(() => void save());
      }}
    >
      <div className="chosen-head">
        <h2 className="room-title">{title}</h2>
        {dirty && <span className="chip straw">{t("commands.unsaved")}</span>}
      </div>
      {lead && <p>{lead}</p>}
      {!may && <p className="quiet">{t("setup.channel.readOnly")}</p>}
      <fieldset disabled={!may}>{children}</fieldset>
      {problem && !fields.includes(problem.field ?? "") && <Alert variant="danger">{problem.detail}</Alert>}
      {theirs && (
        <Alert variant="warning">
          <p>{t("stage.theirs")}</p>
          <SideBySide left={t("commands.mine")} right={t("commands.other")} one={values} other={theirs} />
          <div className="d-flex gap-2">
            <Button size="sm" onClick={() => void save(true)}>
              {t("commands.keepMine")}
            </Button>
            <Button size="sm" variant="outline-secondary" onClick={section.discard}>
              {t("commands.takeTheirs")}
            </Button>
          </div>
        </Alert>
      )}
      {may && (
        <div className="d-flex gap-2 save-row">
          <Button type="submit" disabled={!dirty}>
            {t("commands.save")}
          </Button>
          {dirty && (
            <Button variant="outline-secondary" onClick={section.discard}>
              {t("commands.discard")}
            </Button>
          )}
        </div>
      )}
    </Form>
  );
}
