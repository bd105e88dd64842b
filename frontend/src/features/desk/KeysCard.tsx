import { Button } from "react-bootstrap";
import { useTranslation } from "react-i18next";

const KEYS = [
  ["↑ ↓", "choose"],
  ["Enter", "card"],
  ["Y", "why"],
  ["X", "remove"],
  ["Z", "timeOut"],
  ["L", "pass"],
  ["U", "undo"],
  ["G", "gateOnly"],
  ["/", "say"],
  ["Esc", "back"],
  ["?", "help"],
] as const;

/** The keys of the Desk, listed. */
export function KeysCard({ onClose }: { onClose: () => void }) {
  const { t } = useTranslation();
  return (
    <section className="panel card-over" aria-label={t("keys.title")}>
      <div className="panel-head">
        <h2>{t("keys.title")}</h2>
        <Button size="sm" variant="outline-secondary" onClick={onClose}>
          {t("desk.close")} <kbd>Esc</kbd>
        </Button>
      </div>
      <dl className="keys">
        {KEYS.map(([key, name]) => (
          <div key={name}>
            <dt>
              <kbd>{key}</kbd>
            </dt>
            <dd>{t(`keys.${name}`)}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
