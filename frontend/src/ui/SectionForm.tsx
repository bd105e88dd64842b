import type { ReactNode } from "react";
import { Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { AlsoEditing } from "./AlsoEditing";
import { useTelling } from "./Notice";
import { SaveRow } from "./SaveRow";
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
  const save = async (mix?: typeof values) => {
    if (await (mix ? section.saveOver(mix) : section.save())) tell(t("setup.channel.saved"));
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
        <AlsoEditing place={section.name} />
      </div>
      {lead && <p>{lead}</p>}
      {!may && <p className="quiet">{t("setup.channel.readOnly")}</p>}
      <fieldset disabled={!may}>{children}</fieldset>
      <SaveRow
        dirty={dirty}
        problem={problem && !fields.includes(problem.field ?? "") ? problem.detail : null}
        mine={values}
        theirs={theirs}
        onKeep={(mix) => void save(mix as typeof values)}
        onDiscard={section.discard}
        may={may}
      />
    </Form>
  );
}
