import { useId, useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";

type Props = {
  label: string;
  help: string;
  items: string[];
  onChange: (items: string[]) => void;
  disabled?: boolean;
  splitSpaces?: boolean;
  problem?: string | null;
};

/** A list that takes paste, commas, lines and Enter alike, and keeps what was typed when focus leaves. */
export function ListField({ label, help, items, onChange, disabled, splitSpaces = true, problem }: Props) {
  const { t } = useTranslation();
  const id = useId();
  const [typed, setTyped] = useState("");

  const commit = (text: string) => {
    const parts = text.split(splitSpaces ? /[\s,;]+/ : /[\n,;]+/).map((part) => part.trim());
    const fresh = parts.filter((part) => part && !items.includes(part));
    if (fresh.length) onChange([...items, ...new Set(fresh)]);
    setTyped("");
  };

  return (
    <Form.Group className="mb-3">
      <Form.Label htmlFor={id}>{label}</Form.Label>
      {items.length > 0 && (
        <ul className="chips">
          {items.map((item) => (
            <li key={item}>
              {item}
              {!disabled && (
                <button
                  type="button"
                  aria-label={t("list.remove", { item })}
                  onClick={() => onChange(items.filter((other) => other !== item))}
                >
                  ×
                </button>
              )}
            </li>
          ))}
        </ul>
      )}
      <div className="d-flex gap-2">
        <Form.Control
          id={id}
          value={typed}
          disabled={disabled}
          aria-describedby={`${id}-help`}
          isInvalid={Boolean(problem)}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={() => commit(typed)}
          onPaste={(event) => {
            const text = event.clipboardData.getData("text");
            if (/[\n,;]/.test(text)) {
              event.preventDefault();
              commit(`${typed} ${text}`);
            }
          }}
          onKeyDown={(event) => {
            if (event.key === "Enter" || event.key === ",") {
              event.preventDefault();
              commit(typed);
            }
          }}
        />
        <Button
          variant="outline-secondary"
          disabled={disabled || !typed.trim()}
          onClick={() => commit(typed)}
        >
          {t("list.add")}
        </Button>
      </div>
      <Form.Text id={`${id}-help`} className={problem ? "text-danger" : ""}>
        {problem || help}
      </Form.Text>
    </Form.Group>
  );
}
