import { useState } from "react";
import { Button } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { choose, chosenKeys, type KeyAct, USUAL_KEYS } from "./keys";
import { useKeys } from "./useKeys";

const FIXED = [
  ["↑ ↓", "choose"],
  ["Enter", "card"],
  ["/", "say"],
  ["Esc", "back"],
  ["?", "help"],
] as const;
const ACTS = Object.keys(USUAL_KEYS) as KeyAct[];

/** The keys of the Desk, listed; those with a letter can be given another one. */
export function KeysCard({ onClose }: { onClose: () => void }) {
  const { t } = useTranslation();
  const keys = useKeys();
  const [problem, setProblem] = useState<string | null>(null);
  const press = (act: KeyAct, pressed: string) => {
    const chosen = choose(keys, act, pressed);
    if ("keys" in chosen) {
      setProblem(null);
      chosenKeys.set(chosen.keys);
    } else if (chosen.problem === "taken") {
      setProblem(t("keys.taken", { key: pressed.toUpperCase(), act: t(`keys.${chosen.by}`) }));
    } else setProblem(t("keys.letter"));
  };
  return (
    <section className="panel card-over" aria-label={t("keys.title")}>
      <div className="panel-head">
        <h2>{t("keys.title")}</h2>
        <Button size="sm" variant="outline-secondary" onClick={onClose}>
          {t("desk.close")} <kbd>Esc</kbd>
        </Button>
      </div>
      <dl className="keys">
        {FIXED.map(([key, name]) => (
          <div key={name}>
            <dt>
              <kbd>{key}</kbd>
            </dt>
            <dd>{t(`keys.${name}`)}</dd>
          </div>
        ))}
        {ACTS.map((act) => (
          <div key={act}>
            <dt>
              <input
                className="key-field"
                value={keys[act].toUpperCase()}
                aria-label={t("keys.for", { act: t(`keys.${act}`) })}
                onChange={() => {}}
                onKeyDown={(event) => {
                  if (event.key.length !== 1 || event.ctrlKey || event.metaKey) return;
                  event.preventDefault();
                  press(act, event.key);
                }}
              />
            </dt>
            <dd>{t(`keys.${act}`)}</dd>
          </div>
        ))}
      </dl>
      <p className={problem ? "clay" : "quiet"} role="status">
        {problem ?? t("keys.change")}
      </p>
      {ACTS.some((act) => keys[act] !== USUAL_KEYS[act]) && (
        <Button size="sm" variant="outline-secondary" onClick={() => chosenKeys.set(USUAL_KEYS)}>
          {t("keys.usual")}
        </Button>
      )}
    </section>
  );
}
