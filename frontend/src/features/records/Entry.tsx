import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import { api, ask, type Schemas } from "../../api/client";
import { aboutWords, changeWords } from "../../ui/entries";
import { useTelling } from "../../ui/Notice";
import { SideBySide } from "../../ui/SideBySide";
import { day } from "../../ui/time";

const SHORT = 60;

/** One entry: who, when and from where; what it was and what it became; the way back where it still holds. */
export function Entry({ entry }: { entry: Schemas["EntryView"] }) {
  const { t } = useTranslation();
  const queries = useQueryClient();
  const { tell, complain } = useTelling();
  const [open, setOpen] = useState(false);
  const changed = changeWords(t, entry);
  const about = aboutWords(t, entry);
  const whole = (value: unknown) => typeof value === "object" && value !== null;
  const long = entry.what !== "pass" && (whole(entry.before) || whole(entry.after) || changed.length > SHORT);
  const undo = async () => {
    try {
      await ask(api.POST("/api/ledger/{number}/undo", { params: { path: { number: entry.number } } }));
      tell(t("ledger.undone"));
    } catch (error) {
      complain(error);
    }
    await queries.invalidateQueries();
  };
  const what = t(`ledger.kinds.${entry.what}`, { defaultValue: entry.what });
  return (
    <li data-entry={entry.number}>
      <time className="quiet">{day(entry.at)}</time>
      <div>
        <p>
          <b>{entry.key === "gate" ? t("ledger.gate") : entry.who}</b>{" "}
          <span className="quiet">{t(`ledger.places.${entry.place}`)}</span> {what}
          {entry.person ? (
            <>
              {" "}
              ·{" "}
              <Link to={`/people/card/${encodeURIComponent(entry.person)}`}>
                {entry.whom ?? entry.person}
              </Link>
            </>
          ) : (
            about && ` · ${about}`
          )}
          {!long && changed && <span className="quiet"> · {changed}</span>}
          {entry.why && <span className="quiet"> · {entry.why}</span>}
        </p>
        {open && long && (
          <SideBySide
            left={t("history.before")}
            right={t("history.after")}
            one={entry.before}
            other={entry.after}
          />
        )}
      </div>
      <span className="button-row">
        {long && (
          <Button variant="link" size="sm" aria-expanded={open} onClick={() => setOpen(!open)}>
            {t(open ? "ledger.close" : "ledger.open")}
          </Button>
        )}
        {entry.what === "setting" && entry.about?.includes(".") && (
          <Link
            className="btn btn-link btn-sm"
            to={`/records/back?section=${entry.about.split(".")[0]}&at=${entry.at - 1}`}
          >
            {t("sectionBack.fromHere")}
          </Link>
        )}
        {entry.undoable && (
          <Button variant="outline-secondary" size="sm" onClick={() => void undo()}>
            {t("ledger.undo")}
          </Button>
        )}
      </span>
    </li>
  );
}
