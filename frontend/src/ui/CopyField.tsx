import { type ReactNode, useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { useTelling } from "./Notice";

type Props = {
  id: string;
  label: string;
  help?: string;
  value: string;
  secret?: boolean;
  children?: ReactNode;
};

/** Something to be copied elsewhere: a link, or a secret that is covered until it is asked for. */
export function CopyField({ id, label, help, value, secret = false, children }: Props) {
  const { t } = useTranslation();
  const { tell } = useTelling();
  const [shown, setShown] = useState(!secret);
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(value);
      tell(t("copy.copied"));
    } catch {
      setShown(true);
      tell(t("copy.byHand"));
    }
  };
  return (
    <Form.Group className="mt-3" controlId={id}>
      <Form.Label>{label}</Form.Label>
      <div className="copy-field">
        <Form.Control
          readOnly
          type={shown ? "text" : "password"}
          value={value}
          autoComplete="off"
          onFocus={(event) => event.target.select()}
        />
        {secret && (
          <Button variant="outline-secondary" onClick={() => setShown(!shown)}>
            {t(shown ? "copy.hide" : "copy.show")}
          </Button>
        )}
        <Button onClick={() => void copy()}>{t("copy.copy")}</Button>
        {children}
      </div>
      {help && <Form.Text>{help}</Form.Text>}
    </Form.Group>
  );
}
