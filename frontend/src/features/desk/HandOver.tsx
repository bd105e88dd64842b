import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Button } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import { api, ask } from "../../api/client";
import { written } from "../../ui/differences";
import { aboutWords, changeWords, placeWords } from "../../ui/entries";
import { NoteForm } from "../../ui/NoteForm";
import { NotesMade } from "../../ui/NotesMade";
import { when } from "../../ui/time";
import { useLive } from "../../ui/useLive";

const SHOWN = 12;
const SHORT = 60;
const short = (words: string) => (words && words.length <= SHORT ? ` · ${words}` : "");
type Props = { wanted: boolean; onClose: () => void; may: (act: string) => boolean };

/** What one missed: shown by itself to who comes back mid-stream, and to anybody who asks for it. */
export function HandOver({ wanted, onClose, may }: Props) {
  const { t } = useTranslation();
  const queries = useQueryClient();
  const live = useLive((state) => state.parts.stream?.live);
  const grown = useLive((state) => state.parts.ledger);
  const { data } = useQuery({
    queryKey: ["hand-over", wanted, wanted ? grown : 0],
    queryFn: () => ask(api.GET("/api/hand-over", { params: { query: { whole: wanted } } })),
    enabled: may("card"),
    placeholderData: (before) => before,
  });
  if (!data || !(wanted || (data.missed && live))) return null;
  const seen = async () => {
    onClose();
    await api.POST("/api/hand-over/seen");
    await queries.invalidateQueries({ queryKey: ["hand-over"] });
  };
  return (
    <section className="panel hand-over" aria-label={t("handOver.title")}>
      <div className="panel-head">
        <h2>{t("handOver.title")}</h2>
        <Button size="sm" variant="outline-secondary" onClick={() => void seen()}>
          {t("handOver.seen")}
        </Button>
      </div>
      <p className="quiet">{t("handOver.since", { when: when(data.since) })}</p>
      <NotesMade notes={data.notes} names={data.names} />
      {data.stopped.length > 0 && (
        <p>
          {t("handOver.stopped")}{" "}
          {data.stopped
            .map((one) =>
              t("handOver.stoppedBy", {
                count: one.count,
                filter: t(`filters.${one.filter}`, { defaultValue: one.filter }),
                outcome: t(`people.acts.${one.outcome}`, { defaultValue: one.outcome, time: "" }).trim(),
              }),
            )
            .join(" · ")}
        </p>
      )}
      <Standing />
      <ul className="done">
        {data.entries.slice(0, SHOWN).map((one) => (
          <li key={one.number}>
            <time className="quiet">{when(one.at)}</time>{" "}
            <b>{one.key === "gate" ? t("ledger.gate") : one.who}</b>{" "}
            {t(`ledger.kinds.${one.what}`, { defaultValue: one.what })}
            {(one.whom || one.about) && ` · ${one.whom ?? aboutWords(t, one)}`}
            <span className="quiet">{short(changeWords(t, one))}</span>
          </li>
        ))}
      </ul>
      {(data.more || data.entries.length > SHOWN) && <Link to="/records">{t("handOver.more")}</Link>}
      {data.entries.length + data.stopped.length + data.notes.length === 0 && (
        <p className="quiet">{t("handOver.nothing")}</p>
      )}
      {may("note") && (
        <NoteForm
          person={null}
          label={t("handOver.note")}
          hint={t("handOver.note")}
          said={t("handOver.noted")}
          onAdded={() => queries.invalidateQueries({ queryKey: ["hand-over"] })}
        />
      )}
    </section>
  );
}

/** What holds now that one should know of: changes for tonight, second looks, paused rotas. */
function Standing() {
  const { t } = useTranslation();
  const tonight = useLive((state) => state.parts.tonight);
  const looks = useLive((state) => state.parts.looks);
  const notices = useLive((state) => state.parts.notices);
  const paused = notices?.filter((one) => one.paused).map((one) => one.name) ?? [];
  return (
    <>
      {tonight?.map((one) => (
        <p key={one.number} className="plum">
          {t("handOver.tonight", {
            place: placeWords(t, one.path),
            value: written(one.value),
            who: one.by,
          })}
        </p>
      ))}
      {Boolean(looks?.length) && <p>{t("handOver.looks", { count: looks?.length })}</p>}
      {paused.length > 0 && <p>{t("handOver.paused", { names: paused.join(", ") })}</p>}
    </>
  );
}
