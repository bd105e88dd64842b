import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { NavLink, useParams } from "react-router";
import { api, ask, type Schemas } from "../../api/client";
import { useTelling } from "../../ui/Notice";
import { useMe } from "../../ui/useMe";
import { FilterSetting } from "./FilterSetting";

const MOODS = ["party", "parlour", "library"] as const;

/** The mood and the filters on the left, the chosen filter with its consequence on the right. */
export function Rules() {
  const { t } = useTranslation();
  const { key = "capitals" } = useParams();
  const queries = useQueryClient();
  const { complain } = useTelling();
  const { data: me } = useMe();
  const { data } = useQuery({ queryKey: ["rules"], queryFn: () => ask(api.GET("/api/rules")) });
  const may = Boolean(me?.may.includes("filters"));
  const chosen = data?.filters.find((filter) => filter.key === key);
  const own = data?.filters.reduce((sum, filter) => sum + filter.own.length, 0) ?? 0;

  const run = async (asked: Promise<Schemas["Rules"]>) => {
    try {
      queries.setQueryData(["rules"], await asked);
    } catch (error) {
      complain(error);
    }
  };

  return (
    <main className="room">
      <aside className="list">
        <h1 className="visually-hidden">{t("rules.title")}</h1>
        <fieldset className="moods" disabled={!may}>
          <legend className="visually-hidden">{t("rules.mood")}</legend>
          {MOODS.map((mood) => (
            <label
              key={mood}
              className={data?.mood === mood ? "chosen" : ""}
              title={t(`moodMeanings.${mood}`)}
            >
              <input
                type="radio"
                name="mood"
                checked={data?.mood === mood}
                onChange={() => void run(ask(api.PUT("/api/rules/mood", { body: { mood } })))}
              />
              {t(`moods.${mood}`)}
            </label>
          ))}
        </fieldset>
        <p className="quiet small">
          {t("rules.own", { count: own })} {t("rules.recent")}
        </p>
        <div className="list-body">
          {data?.filters.map((filter) => (
            <div key={filter.key} className="list-row">
              <NavLink to={`/rules/${filter.key}`} className={filter.key === key ? "active" : ""}>
                <b>{t(`filters.${filter.key}`)}</b>
                <span className="quiet">{t("rules.stopped", { count: filter.stopped })}</span>
              </NavLink>
              <Form.Check
                type="switch"
                aria-label={`${t("rules.on")}: ${t(`filters.${filter.key}`)}`}
                checked={Boolean(filter.values.on)}
                disabled={!may}
                onChange={(event) =>
                  void run(
                    ask(
                      api.PUT("/api/rules/filters/{key}", {
                        params: { path: { key: filter.key } },
                        body: {
                          values: {
                            on: event.target.checked === filter.mood.on ? null : event.target.checked,
                          },
                        },
                      }),
                    ),
                  )
                }
              />
            </div>
          ))}
        </div>
        {!may && <p className="quiet small">{t("rules.readOnly")}</p>}
      </aside>
      <section className="chosen">
        {chosen && data && <FilterSetting key={chosen.key} filter={chosen} mood={data.mood} may={may} />}
      </section>
    </main>
  );
}
