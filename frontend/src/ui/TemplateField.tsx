import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { insertAt } from "./insertAt";
import { Preview } from "./Preview";
import { type Used, usePreview } from "./usePreview";

const wordOf = (variable: string) => variable.replaceAll(".", "_");

type Props = {
  id: string;
  label: string;
  help?: string;
  value: string;
  used: Used;
  variables: string[];
  disabled?: boolean;
  problem?: string | null;
  onChange: (text: string) => void;
  onDrop?: () => void;
};

/** A template with what may be put into it, and how it would read. */
export function TemplateField({ id, label, help, value, used, variables, disabled, problem, ...on }: Props) {
  const { t } = useTranslation();
  const found = usePreview({ reply: value, used });
  return (
    <div className="template-field">
      <Form.Group controlId={id}>
        <Form.Label>{label}</Form.Label>
        <Form.Control
          as="textarea"
          rows={2}
          value={value}
          disabled={disabled}
          isInvalid={Boolean(problem)}
          onChange={(event) => on.onChange(event.target.value)}
        />
        {(problem || help) && (
          <Form.Text className={problem ? "text-danger" : ""}>{problem || help}</Form.Text>
        )}
      </Form.Group>
      {!disabled && (
        <div className="variables">
          <span className="quiet">{t("commands.insert")}</span>
          {variables.map((variable) => (
            <button
              type="button"
              key={variable}
              title={`{{ ${variable} }}`}
              onClick={() => on.onChange(insertAt(id, value, variable))}
            >
              {t([`variablesIn.${used}.${wordOf(variable)}`, `variables.${wordOf(variable)}`])}
            </button>
          ))}
          {on.onDrop && (
            <Button variant="link" size="sm" className="p-0 ms-auto" onClick={on.onDrop}>
              {t("stage.dropTemplate")}
            </Button>
          )}
        </div>
      )}
      <Preview reply={value} found={found.data} platforms={1} />
    </div>
  );
}
