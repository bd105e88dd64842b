import { useState } from "react";
import { Button } from "react-bootstrap";
import { useTranslation } from "react-i18next";

type Props = { words: string; sure: string; go: string; onGo: () => void };

/** A press for what cannot be undone: it says what it does and asks for a second one. */
export function Confirm({ words, sure, go, onGo }: Props) {
  const { t } = useTranslation();
  const [asking, setAsking] = useState(false);
  if (!asking)
    return (
      <Button variant="outline-danger" size="sm" onClick={() => setAsking(true)}>
        {words}
      </Button>
    );
  return (
    <span className="confirm" role="alert">
      <span>{sure}</span>
      <Button
        size="sm"
        variant="danger"
        onClick={() => {
          setAsking(false);
          onGo();
        }}
      >
        {go}
      </Button>
      <Button size="sm" variant="outline-secondary" onClick={() => setAsking(false)}>
        {t("confirm.not")}
      </Button>
    </span>
  );
}
