import type { ComponentType } from "react";
import { Button } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import type { Line, Mark } from "../../live/types";
import { exemptWords, reasonWords } from "../../ui/findings";
import { MarkedText } from "../../ui/MarkedText";
import { clock, inWords } from "../../ui/time";
import { useLive } from "../../ui/useLive";
import type { Acts } from "./acts";
import { LadderView } from "./LadderView";
import { canUndo, ink, marginWords, undoneOf, verdictOf } from "./marks";
import { useKeys } from "./useKeys";

type Props = {
  line: Line;
  may: (act: string) => boolean;
  acts: Acts;
  /** Shows who wrote the line and what can be done about them. */
  Person: ComponentType<{ person: string }>;
  onClose: () => void;
};

/** A line opened up, over the bench: what was found, what followed, what became of it, what can be done. */
export function WhyCard({ line, may, acts, Person, onClose }: Props) {
  const { t } = useTranslation();
  const verdict = verdictOf(line);
  const undone = undoneOf(line);
  const words = marginWords(t, line);
  const keys = useKeys();
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
        <MarkedText text={line.text} reasons={verdict?.reasons ?? []} />
      </blockquote>
      {words.map(({ tone, word, more }) => (
        <p key={word} className={`word ${tone}`}>
          <b>{word}</b> {more && <span>{more}</span>}
        </p>
      ))}
      {verdict ? <Reasons verdict={verdict} /> : !words.length && <p className="quiet">{t("why.nothing")}</p>}
      {undone && <p>{t("marks.undone", { who: undone.by_name })}</p>}
      <Carried line={line} />
      <div className="card-acts">
        {canUndo(line) && may("undo") && (
          <Button onClick={() => void acts.undo(line)}>
            {t("desk.undo")} <kbd>{keys.undo.toUpperCase()}</kbd>
          </Button>
        )}
        {verdict && may("second_look") && <Settle line={line} acts={acts} />}
      </div>
      {!line.gatekeeper && may("card") && <Person person={line.person.key} />}
    </section>
  );
}

/** Right, wrong, or to be looked at by others too. */
function Settle({ line, acts }: { line: Line; acts: Acts }) {
  const { t } = useTranslation();
  const open = useLive((state) => state.parts.looks)?.some(
    (look) => look.platform === line.platform && look.message === line.id,
  );
  const small = { variant: "outline-secondary" } as const;
  return (
    <>
      {!open && (
        <Button {...small} onClick={() => void acts.look(line)}>
          {t("desk.look")}
        </Button>
      )}
      <Button {...small} onClick={() => void acts.settle(line.platform, line.id, "right")}>
        {t("desk.right")}
      </Button>
      <Button {...small} onClick={() => void acts.settle(line.platform, line.id, "wrong")}>
        {t("desk.wrong")}
      </Button>
    </>
  );
}

function Reasons({ verdict }: { verdict: Mark }) {
  const { t } = useTranslation();
  const grace =
    verdict.outcome === "remove" &&
    verdict.filter !== "copycats" &&
    verdict.filter !== "newcomers" &&
    verdict.reasons?.every((reason) => reason.step === "remove" || reason.step === null);
  return (
    <div className="reasons">
      <ul>
        {verdict.reasons?.map((reason) => (
          <li key={`${reason.filter}${reason.span}`}>{reasonWords(t, reason)}</li>
        ))}
        {verdict.exempt?.map((exempt) => (
          <li key={`${exempt.filter}${exempt.by}`}>{exemptWords(t, exempt)}</li>
        ))}
        {grace && <li>{t("why.grace")}</li>}
      </ul>
      <p className="quiet">
        {verdict.outcome !== "allow" &&
          t("why.step", {
            step: t(`marks.${verdict.outcome}`, { time: verdict.seconds ? inWords(t, verdict.seconds) : "" }),
          })}{" "}
        {t("why.strikes", { strikes: verdict.strikes })}
      </p>
      <LadderView strikes={verdict.strikes ?? 0} />
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
