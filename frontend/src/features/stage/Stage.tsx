import { useQuery } from "@tanstack/react-query";
import { Button } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { NavLink, useNavigate, useParams } from "react-router";
import { api, ask } from "../../api/client";
import { useLive } from "../../ui/useLive";
import { useMe } from "../../ui/useMe";
import { Arrivals } from "./Arrivals";
import { Categories } from "./Categories";
import { CounterEditor } from "./CounterEditor";
import { Happenings } from "./Happenings";
import { Markers } from "./Markers";
import { Quotes } from "./Quotes";
import { Shoutouts } from "./Shoutouts";

const PARTS = ["categories", "quotes", "shoutouts", "arrivals", "happenings", "markers"] as const;
const NEW = "+";

/** What the stream shows and says of itself: counters and their cards, quotes, shoutouts, arrivals, happenings. */
export function Stage() {
  const { t } = useTranslation();
  const navigate = useNavigate();
  const { part, name } = useParams();
  const { data: me } = useMe();
  const { data: counters } = useQuery({
    queryKey: ["counters"],
    queryFn: () => ask(api.GET("/api/counters")),
  });
  const values = useLive((state) => state.parts.counters);
  const mayDo = (act: string) => Boolean(me?.may.includes(act));
  const may = mayDo("commands");
  const first = counters?.[0]?.name;
  const chosen = part ?? (first ? "counter" : "quotes");
  const wanted = part ? name : first;
  const view = counters?.find((one) => one.name === wanted) ?? null;
  return (
    <main className="room">
      <aside className="list">
        <h1 className="visually-hidden">{t("rooms.stage")}</h1>
        {may && (
          <div className="list-head">
            <Button onClick={() => navigate(`/stage/counter/${NEW}`)}>{t("stage.newCounter")}</Button>
          </div>
        )}
        <div className="list-body">
          <h2>{t("stage.counters")}</h2>
          {counters?.map((one) => (
            <div key={one.name} className="list-row">
              <NavLink
                to={`/stage/counter/${encodeURIComponent(one.name)}`}
                className={chosen === "counter" && wanted === one.name ? "active" : ""}
              >
                <b>{String(one.command.label ?? one.name)}</b>
                <span>{values?.find((value) => value.name === one.name)?.value}</span>
              </NavLink>
            </div>
          ))}
          {counters?.length === 0 && <p className="list-caption">{t("bench.noCounters")}</p>}
          <h2>{t("stage.others")}</h2>
          {PARTS.map((one) => (
            <div key={one} className="list-row">
              <NavLink to={`/stage/${one}`} className={one === chosen ? "active" : ""}>
                <b>{t(`stage.parts.${one}`)}</b>
              </NavLink>
            </div>
          ))}
        </div>
      </aside>
      <section className="chosen">
        {chosen === "counter" && (view || wanted === NEW) && (
          <CounterEditor key={wanted} view={view} may={may} mayCount={mayDo("count")} />
        )}
        {chosen === "counter" && counters && !view && wanted !== NEW && <p>{t("stage.noSuchCounter")}</p>}
        {chosen === "categories" && <Categories may={may} />}
        {chosen === "quotes" && <Quotes may={mayDo("quote")} maySet={may} />}
        {chosen === "shoutouts" && <Shoutouts may={may} />}
        {chosen === "arrivals" && <Arrivals may={may} mayForget={mayDo("arrivals")} />}
        {chosen === "happenings" && <Happenings may={may} />}
        {chosen === "markers" && <Markers />}
      </section>
    </main>
  );
}
