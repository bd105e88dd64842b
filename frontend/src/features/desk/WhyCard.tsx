import { Button } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import type { Line, Mark } from "../../live/types";
import { reasonWords } from "../../ui/findings";
import { clock, inWords } from "../../ui/time";
import { Marked } from "./Marked";
import { canUndo, ink, marginWords, undoneOf, verdictOf } from "./marks";

type Props = { line: Line; mayUndo: boolean; onUndo: (line: Line) => void; onClose: () => void };

/** A line opened up, over the bench: what was found, what followed, what became of it. */
export function WhyCard({ line, mayUndo, onUndo, onClose }: Props) {
  const { t } = useTranslation();
  const verdict = verdictOf(line);
  const undone = undoneOf(line);
  const words = marginWords(t, line);
  return (
    <section className="panel card-over" aria-label={t("why.title")}>
      <div className="panel-head">
        <h2>
          <span className={`ink-${ink(line.person.identity)}`}>{line.person.name}</span>{" "}
          <span className="quiet">
            {t(`platforms.${line.platform}`, { defaultValue: line.platform })}, {clock(line.at)}
          </span>
        </h2>
        <Button size="sm" variant="outline-secondary" onClick={onClose}>
          {t("desk.close")} <kbd>Esc</kbd>
        </Button>
      </div>
      <blockquote>
        <Marked text={line.text} reasons={verdict?.reasons ?? []} />
      </blockquote>
      {words.map(({ tone, word, more }) => (
        <p key={word} className={`word ${tone}`}>
          <b>{word}</b> {more && <span>{more}</span>}
        </p>
      ))}
      {verdict ? <Reasons verdict={verdict} /> : !words.length && <p className="quiet">{t("why.nothing")}</p>}
      {undone && <p>{t("marks.undone", { who: undone.by_name })}</p>}
      <Carried line={line} />
      {canUndo(line) && mayUndo && (
        <Button onClick={() => onUndo(line)}>
          {t("desk.undo")} <kbd>U</kbd>
        </Button>
      )}
    </section>
  );
}

function Reasons({ verdict }: { verdict: Mark }) {
  const { t } = useTranslation();
  const silent = verdict.outcome === "remove" && verdict.reasons?.every((reason) => reason.step === "remove");
  return (
    <div className="reasons">
      <ul>
        {verdict.reasons?.map((reason) => (
          <li key={`${reason.filter}${reason.span}`}>{reasonWords(t, reason)}</li>
        ))}
        {verdict.exempt?.map((exempt) => (
          <li key={`${exempt.filter}${exempt.by}`}>
            {t("why.exempt", { filter: t(`filters.${exempt.filter}`), why: t(`marks.exempt.${exempt.by}`) })}
          </li>
        ))}
        {silent && <li>{t("why.grace")}</li>}
      </ul>
      <p className="quiet">
        {verdict.outcome !== "allow" &&
          t("why.step", {
            step: t(`marks.${verdict.outcome}`, { time: verdict.seconds ? inWords(t, verdict.seconds) : "" }),
          })}{" "}
        {t("why.strikes", { strikes: verdict.strikes })}
      </p>
    </div>
  );
}

function Carried({ line }: { line: Line }) {
  const { t } = useTranslation();
  const acts = Object.entries(line.sending);
  if (!acts.length) return null;
  return (
    <>
      <h3>{t("why.carried")}</h3>
      <ul className="carried">
        {acts.map(([act, status]) => (
          <li key={act}>
            {t(`why.acts.${act}`)}: {t(`why.${status}`)}
          </li>
        ))}
      </ul>
    </>
  );
}
