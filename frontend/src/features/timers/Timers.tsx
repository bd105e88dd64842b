import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { NavLink, useNavigate, useParams } from "react-router";
import { api, ask, type Schemas } from "../../api/client";
import { useTelling } from "../../ui/Notice";
import { spanWords } from "../../ui/time";
import { useMe } from "../../ui/useMe";
import { Ahead } from "./Ahead";
import { RotaEditor } from "./RotaEditor";
import type { Rota } from "./rota";

const NEW = "+";

/** Every rota on the left; the chosen one on the right, with what it will post. */
export function Timers() {
  const { t } = useTranslation();
  const { name } = useParams();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const { complain } = useTelling();
  const { data: me } = useMe();
  const { data } = useQuery({ queryKey: ["rotas"], queryFn: () => ask(api.GET("/api/rotas")) });
  const may = Boolean(me?.may.includes("commands"));
  const mayMove = Boolean(me?.may.includes("rota"));
  const turn = async (view: Schemas["RotaView"], on: boolean) => {
    try {
      const params = { path: { name: view.name } };
      const { on: _, ...rota } = view.rota;
      const body = { rota: on ? rota : { ...rota, on: false }, revision: view.revision };
      await ask(api.PUT("/api/rotas/{name}", { params, body }));
    } catch (error) {
      complain(error);
    }
    await queries.invalidateQueries({ queryKey: ["rotas"] });
  };
  const view = data?.rotas.find((one) => one.name === name) ?? null;
  return (
    <main className="room">
      <aside className="list">
        <h1 className="visually-hidden">{t("rooms.timers")}</h1>
        {may && (
          <div className="list-head">
            <Button onClick={() => navigate(`/timers/${NEW}`)}>{t("timers.new")}</Button>
          </div>
        )}
        <div className="list-body">
          {data?.rotas.map((one) => (
            <div key={one.name} className="list-row">
              <NavLink to={`/timers/${encodeURIComponent(one.name)}`}>
                <b>{one.name}</b>
                <span className={one.paused ? "straw" : "quiet"}>
                  {one.paused
                    ? t("timers.paused")
                    : t("timers.everyShort", { every: spanWords(t, (one.rota as Rota).every ?? "20m") })}
                </span>
              </NavLink>
              <Form.Check
                type="switch"
                aria-label={t("timers.onOf", { name: one.name })}
                disabled={!may}
                checked={(one.rota as Rota).on ?? true}
                onChange={(event) => void turn(one, event.target.checked)}
              />
            </div>
          ))}
          {data?.rotas.length === 0 && <p className="list-caption">{t("bench.noNotices")}</p>}
          <p className="list-links">
            <NavLink to="/timers" end>
              {t("timers.all")}
            </NavLink>
            <a href="/api/rotas/posts.csv" download>
              {t("timers.posts")}
            </a>
            <a href="/api/rotas/notices.ics" download>
              {t("timers.calendar")}
            </a>
          </p>
        </div>
      </aside>
      <section className="chosen">
        {data && (view || name === NEW) && (
          <RotaEditor key={name} view={view} all={data} may={may} mayMove={mayMove} />
        )}
        {data && !view && name !== NEW && (
          <>
            <h2 className="room-title">{t("timers.title")}</h2>
            <p>{t(name ? "timers.gone" : "timers.start")}</p>
            <Ahead all={data} draft={null} was={null} />
          </>
        )}
      </section>
    </main>
  );
}
