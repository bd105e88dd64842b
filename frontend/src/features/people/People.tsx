import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { Link, NavLink, useParams } from "react-router";
import { api, ask } from "../../api/client";
import { SearchField } from "../../ui/SearchField";
import { when } from "../../ui/time";
import { useMe } from "../../ui/useMe";
import { useRested } from "../../ui/usePreview";
import { LISTS, type ListName, ListRoom } from "./ListRoom";
import { Overview } from "./Overview";
import { PersonCard } from "./PersonCard";

/** Everybody who talks here: found by name, each with a card; and the channel's own lists. */
export function People() {
  const { t } = useTranslation();
  const { part, name = "" } = useParams();
  const { data: me } = useMe();
  const may = Boolean(me?.may.includes("card"));
  const [text, setText] = useState("");
  const [strikes, setStrikes] = useState(false);
  const search = useRested(text.trim());
  const { data } = useQuery({
    queryKey: ["people", "found", search, strikes],
    queryFn: () => ask(api.GET("/api/people", { params: { query: { search, strikes } } })),
    placeholderData: (before) => before,
    enabled: may,
    refetchInterval: 10_000,
  });
  return (
    <main className={`room people ${part ? "opened" : ""}`}>
      <h1 className="visually-hidden">{t("rooms.people")}</h1>
      <aside className="list">
        <div className="list-head">
          <SearchField label={t("people.search")} value={text} onChange={setText} />
          <Form.Check
            type="switch"
            id="with-strikes"
            label={t("people.withStrikes")}
            checked={strikes}
            onChange={(event) => setStrikes(event.target.checked)}
          />
        </div>
        <div className="list-body">
          <h2>{t("people.listsHead")}</h2>
          {LISTS.map((list) => (
            <div key={list} className="list-row">
              <NavLink to={`/people/lists/${list}`}>
                <b>{t(`people.lists.${list}`)}</b>
              </NavLink>
            </div>
          ))}
          <h2>{t(search ? "people.found" : strikes ? "people.withStrikes" : "people.lately")}</h2>
          {data?.people.map((one) => (
            <div key={one.key} className="list-row">
              <NavLink to={`/people/card/${encodeURIComponent(one.key)}`}>
                <b>
                  <i className="tile" title={t(`platforms.${one.platform}`, { defaultValue: one.platform })}>
                    {one.platform.slice(0, 1).toUpperCase()}
                  </i>{" "}
                  {one.name}
                </b>
                <span className={one.strikes ? "clay" : "quiet"}>
                  {one.strikes
                    ? t("people.strikesShort", { count: one.strikes })
                    : one.level === "everyone"
                      ? one.at && when(one.at)
                      : t(`people.levels.${one.level}`)}
                </span>
              </NavLink>
            </div>
          ))}
          {data?.people.length === 0 && <p className="list-caption">{t("people.none")}</p>}
        </div>
      </aside>
      <section className="chosen">
        {part && (
          <Link className="to-list" to="/people">
            {t("people.toList")}
          </Link>
        )}
        {me && !may && <p className="quiet">{t("people.notForViewers")}</p>}
        {may && part === "card" && <PersonCard key={name} person={name} />}
        {may && part === "lists" && LISTS.includes(name as ListName) && (
          <ListRoom key={name} name={name as ListName} />
        )}
        {may && !part && <Overview mayNote={Boolean(me?.may.includes("note"))} />}
      </section>
    </main>
  );
}
