import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { SectionForm } from "../../ui/SectionForm";
import { TemplateField } from "../../ui/TemplateField";
import { useSection } from "../../ui/useSection";
import { CardEditor } from "./CardEditor";

type Lines = Record<string, string>;
type Values = { reply: string; plain: string; guard: string; lines: Lines };

const TARGET = ["target.name", "target.link"];

/** How a shoutout reads, the personal lines, and the guard against two at once. */
export function Shoutouts({ may }: { may: boolean }) {
  const { t } = useTranslation();
  const section = useSection<Values>("shoutouts");
  const { values, change, wrong } = section;
  return (
    <>
      <SectionForm
        title={t("stage.parts.shoutouts")}
        lead={t("stage.shoutouts.lead")}
        may={may}
        section={section}
        fields={["reply", "plain", "guard", "lines"]}
      >
        <TemplateField
          id="shoutout-reply"
          label={t("stage.shoutouts.reply")}
          value={values?.reply ?? ""}
          used="shoutout"
          variables={[...TARGET, "target.category"]}
          disabled={!may}
          problem={wrong("reply")}
          onChange={(reply) => change({ reply })}
        />
        <TemplateField
          id="shoutout-plain"
          label={t("stage.shoutouts.plain")}
          value={values?.plain ?? ""}
          used="plain"
          variables={TARGET}
          disabled={!may}
          problem={wrong("plain")}
          onChange={(plain) => change({ plain })}
        />
        <LinesField
          lines={values?.lines ?? {}}
          may={may}
          problem={wrong("lines")}
          onChange={(lines) => change({ lines })}
        />
        <Form.Group className="mb-3 short-field" controlId="shoutout-guard">
          <Form.Label>{t("stage.shoutouts.guard")}</Form.Label>
          <Form.Control
            value={values?.guard ?? ""}
            isInvalid={Boolean(wrong("guard"))}
            onChange={(event) => change({ guard: event.target.value })}
          />
          <Form.Text className={wrong("guard") ? "text-danger" : ""}>
            {wrong("guard") ?? t("stage.shoutouts.guardHelp")}
          </Form.Text>
        </Form.Group>
      </SectionForm>
      {may && <CardEditor card="shoutout" />}
    </>
  );
}

type LinesProps = { lines: Lines; may: boolean; problem: string | null; onChange: (lines: Lines) => void };

/** A line of its own for a channel, said before the template. */
function LinesField({ lines, may, problem, onChange }: LinesProps) {
  const { t } = useTranslation();
  const [login, setLogin] = useState("");
  const add = () => {
    const name = login.trim().replace(/^@/, "");
    if (name && !(name in lines)) onChange({ ...lines, [name]: "" });
    setLogin("");
  };
  return (
    <fieldset className="mb-3">
      <legend>{t("stage.shoutouts.lines")}</legend>
      <p className="quiet">{t("stage.shoutouts.linesHelp")}</p>
      {Object.entries(lines).map(([name, text]) => (
        <div key={name} className="name-and-line">
          <b>{name}</b>
          <Form.Control
            value={text}
            aria-label={t("stage.shoutouts.lineOf", { name })}
            isInvalid={!text.trim()}
            onChange={(event) => onChange({ ...lines, [name]: event.target.value })}
          />
          {may && (
            <Button
              variant="outline-secondary"
              aria-label={t("list.remove", { item: name })}
              onClick={() => {
                const { [name]: _, ...others } = lines;
                onChange(others);
              }}
            >
              ×
            </Button>
          )}
        </div>
      ))}
      {may && (
        <div className="name-and-line">
          <Form.Control
            value={login}
            placeholder={t("stage.shoutouts.login")}
            aria-label={t("stage.shoutouts.login")}
            onChange={(event) => setLogin(event.target.value)}
            onKeyDown={(event) => {
              if (event.key !== "Enter") return;
              event.preventDefault();
              add();
            }}
            onBlur={add}
          />
          <Button variant="outline-secondary" disabled={!login.trim()} onClick={add}>
            {t("list.add")}
          </Button>
        </div>
      )}
      {problem && <p className="clay">{problem}</p>}
    </fieldset>
  );
}
