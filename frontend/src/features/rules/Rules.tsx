import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { NavLink, useParams } from "react-router";
import { api, ask, type Schemas } from "../../api/client";
import { useTelling } from "../../ui/Notice";
import { SearchField } from "../../ui/SearchField";
import { useLive } from "../../ui/useLive";
import { useMe } from "../../ui/useMe";
import { FilterSetting } from "./FilterSetting";
import type { FilterView } from "./fields";

const MOODS = ["party", "parlour", "library"] as const;

/** The mood and the filters on the left, the chosen filter with its consequence on the right. */
export function Rules() {
  const { t } = useTranslation();
  const { key = "capitals" } = useParams();
  const queries = useQueryClient();
  const { complain } = useTelling();
  const { data: me } = useMe();
  const revision = useLive((state) => state.parts.settings ?? 0);
  const live = useLive((state) => Boolean(state.parts.stream?.live));
  const { data } = useQuery({
    queryKey: ["rules", revision],
    queryFn: () => ask(api.GET("/api/rules")),
    placeholderData: (before: Schemas["Rules"] | undefined) => before,
  });
  const [tonight, setTonight] = useState(false);
  const [search, setSearch] = useState("");
  const mayLast = Boolean(me?.may.includes("filters"));
  const mayTonight = Boolean(me?.may.includes("tonight"));
  const chosen = data?.filters.find((filter) => filter.key === key);
  const forTonight = tonight || !mayLast;
  const wanted = search.trim().toLowerCase();
  const shown = data?.filters.filter((filter) =>
    `${t(`filters.${filter.key}`)} ${t(`filters.${filter.key}Lead`)}`.toLowerCase().includes(wanted),
  );

  const onRules = (rules: Schemas["Rules"]) => queries.setQueryData(["rules", revision], rules);
  const run = async (asked: Promise<Schemas["Rules"]>) => {
    try {
      onRules(await asked);
    } catch (error) {
      complain(error);
    }
  };
  const turn = (filter: FilterView, on: boolean) => {
    const value = on === filter.mood.on && !forTonight ? null : on;
    const params = { path: { key: filter.key } };
    void run(
      ask(
        api.PUT("/api/rules/filters/{key}", { params, body: { values: { on: value }, tonight: forTonight } }),
      ),
    );
  };

  return (
    <main className="room">
      <aside className="list">
        <h1 className="visually-hidden">{t("rules.title")}</h1>
        <fieldset className="moods" disabled={!mayTonight}>
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
                onChange={() =>
                  void run(
                    ask(api.PUT("/api/rules/mood", { body: { mood, tonight: forTonight, drop: false } })),
                  )
                }
              />
              {t(`moods.${mood}`)}
            </label>
          ))}
        </fieldset>
        <p className="quiet small">
          {data?.mood_tonight && <b className="plum">{t("rules.tonightMark")} · </b>}
          {t("rules.own", { count: data?.own ?? 0 })}{" "}
          {mayLast && data && data.own > 0 && (
            <Button
              variant="link"
              size="sm"
              className="p-0"
              title={t("rules.dropHelp")}
              onClick={() =>
                void run(
                  ask(
                    api.PUT("/api/rules/mood", {
                      body: { mood: data.mood as (typeof MOODS)[number], tonight: false, drop: true },
                    }),
                  ),
                )
              }
            >
              {t("rules.drop")}
            </Button>
          )}
        </p>
        <div className="list-head">
          <SearchField label={t("rules.search")} value={search} onChange={setSearch} />
        </div>
        <h2 className="list-caption">{t(live ? "rules.thisStream" : "rules.lastStream")}</h2>
        <div className="list-body">
          {shown?.map((filter) => (
            <div key={filter.key} className="list-row" data-filter={filter.key}>
              <NavLink to={`/rules/${filter.key}`} className={filter.key === key ? "active" : ""}>
                <b>{t(`filters.${filter.key}`)}</b>
                <Did filter={filter} />
              </NavLink>
              <Form.Check
                type="switch"
                aria-label={`${t("rules.on")}: ${t(`filters.${filter.key}`)}`}
                checked={Boolean(filter.values.on)}
                disabled={!mayTonight}
                onChange={(event) => turn(filter, event.target.checked)}
              />
            </div>
          ))}
        </div>
        {!mayLast && <p className="quiet small">{t("rules.readOnly")}</p>}
      </aside>
      <section className="chosen">
        {chosen && data && (
          <FilterSetting
            key={chosen.key}
            filter={chosen}
            rules={data}
            mayLast={mayLast}
            mayTonight={mayTonight}
            tonight={tonight}
            onTonight={setTonight}
            onRules={onRules}
          />
        )}
      </section>
    </main>
  );
}

/** What a filter did, in a few words; its own values and what holds tonight are told by a word, too. */
function Did({ filter }: { filter: FilterView }) {
  const { t } = useTranslation();
  const { stopped, undone, exempt } = filter;
  const words = [];
  if (stopped) words.push(t(undone ? "rules.didUndone" : "rules.did", { stopped, undone }));
  else if (exempt) words.push(t("rules.didExempt", { exempt }));
  return (
    <span className="did">
      {filter.tonight.length > 0 && <b className="plum">{t("rules.tonightMark")}</b>}
      {!filter.tonight.length && filter.own.length > 0 && <b>{t("rules.ownMark")}</b>}
      <span className="quiet">{words.join(" · ")}</span>
    </span>
  );
}
