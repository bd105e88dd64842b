import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import { api, ask, type Schemas } from "../../api/client";
import { readKept } from "../../ui/kept";
import { useTelling } from "../../ui/Notice";
import { PlatformSelect } from "../../ui/PlatformSelect";
import { usePlatforms } from "../../ui/usePlatforms";

export const LISTS = ["regulars", "leads", "ignored"] as const;
export type ListName = (typeof LISTS)[number];

/** One of the channel's lists of people: many names at once, looked up with the platform as soon as focus leaves. */
export function ListRoom({ name }: { name: ListName }) {
  const { t } = useTranslation();
  const queries = useQueryClient();
  const { tell, complain } = useTelling();
  const { data } = useQuery({
    queryKey: ["people", "list", name],
    queryFn: () => ask(api.GET("/api/people/lists/{name}", { params: { path: { name } } })),
  });
  const known = usePlatforms();
  const [platform, setPlatform] = useState("");
  const where = platform || known[0] || "brook";
  const key = `gentlegate.names.${name}`;
  const [typed, setTyped] = useState(() => readKept<string>(key) ?? "");
  const [odd, setOdd] = useState<Schemas["CheckedName"][]>([]);
  const [busy, setBusy] = useState(false);
  const named = (one: string) => t(`platforms.${one}`, { defaultValue: one });
  useEffect(() => {
    if (typed) localStorage.setItem(key, JSON.stringify(typed));
    else localStorage.removeItem(key);
  }, [key, typed]);
  const change = async (body: { add: string[]; take: string[] }) => {
    await ask(api.POST("/api/people/lists/{name}", { params: { path: { name } }, body }));
    await queries.invalidateQueries({ queryKey: ["people"] });
  };
  const commit = async (text: string) => {
    const names = [...new Set(text.split(/[\s,;]+/).filter(Boolean))];
    if (!names.length || busy) return;
    setBusy(true);
    try {
      const found = await ask(api.POST("/api/people/check", { body: { platform: where, names } }));
      const add = found.flatMap((one) => (one.person ? [one.person] : []));
      if (add.length) await change({ add, take: [] });
      setOdd((before) => [...before, ...found.filter((one) => !one.person)]);
      // What was typed on meanwhile stays.
      setTyped((now) => (now.startsWith(text) ? now.slice(text.length).trimStart() : now));
      if (add.length) tell(t("people.added", { count: add.length }));
    } catch (error) {
      complain(error);
    }
    setBusy(false);
  };
  const take = async (entry: string) => {
    try {
      await change({ add: [], take: [entry] });
      tell(t("people.taken"), {
        label: t("people.takenBack"),
        run: () => void change({ add: [entry], take: [] }).catch(complain),
      });
    } catch (error) {
      complain(error);
    }
  };
  const anyway = async (one: Schemas["CheckedName"]) => {
    const entry = one.typed.includes(":") ? one.typed : `${where}:@${one.typed.replace(/^@/, "")}`;
    try {
      await change({ add: [entry], take: [] });
      setOdd((before) => before.filter((other) => other !== one));
    } catch (error) {
      complain(error);
    }
  };
  if (!data) return null;
  return (
    <>
      <h2 className="room-title">{t(`people.lists.${name}`)}</h2>
      <p>{t(`people.listLead.${name}`)}</p>
      {data.may ? (
        <Form
          className="names-form"
          onSubmit={(event) => {
            event.preventDefault();
            void commit(typed);
          }}
        >
          <Form.Control
            as="textarea"
            rows={typed.includes("\n") ? 6 : 2}
            value={typed}
            aria-label={t("people.names")}
            placeholder={t("people.namesHint")}
            onChange={(event) => setTyped(event.target.value)}
            onBlur={() => void commit(typed)}
            onKeyDown={(event) => {
              if (event.key !== "Enter") return;
              event.preventDefault();
              void commit(typed);
            }}
          />
          <PlatformSelect
            label={t("people.linkPlatform")}
            platforms={known}
            value={where}
            onChange={setPlatform}
          />
          <Button type="submit" disabled={busy || !typed.trim()}>
            {t("list.add")}
          </Button>
        </Form>
      ) : (
        <p className="quiet">{t(name === "leads" ? "people.leadsReadOnly" : "people.readOnly")}</p>
      )}
      {odd.length > 0 && (
        <ul className="odd-names" aria-live="polite">
          {odd.map((one) => (
            <li key={one.typed}>
              <span>
                <b>{one.typed}</b> <span className="clay">{one.problem}</span>
              </span>
              <span className="button-row">
                <Button
                  size="sm"
                  variant="outline-secondary"
                  onClick={() => {
                    setTyped(`${typed} ${one.typed}`.trim());
                    setOdd((before) => before.filter((other) => other !== one));
                  }}
                >
                  {t("people.correct")}
                </Button>
                <Button size="sm" variant="outline-secondary" onClick={() => void anyway(one)}>
                  {t("people.anyway")}
                </Button>
                <Button
                  size="sm"
                  variant="outline-secondary"
                  onClick={() => setOdd((before) => before.filter((other) => other !== one))}
                >
                  {t("people.drop")}
                </Button>
              </span>
            </li>
          ))}
        </ul>
      )}
      <ul className="names">
        {data.entries.map((one) => (
          <li key={one.entry} data-entry={one.entry}>
            <Link to={`/people/card/${encodeURIComponent(one.entry)}`}>{one.name}</Link>{" "}
            <span className="quiet">
              {named(one.platform)}
              {!one.known && ` · ${t("people.notSeen")}`}
            </span>
            {data.may && (
              <button
                type="button"
                className="drop"
                aria-label={t("list.remove", { item: one.name })}
                onClick={() => void take(one.entry)}
              >
                ×
              </button>
            )}
          </li>
        ))}
      </ul>
      {data.entries.length === 0 && <p className="quiet">{t("people.emptyList")}</p>}
    </>
  );
}
