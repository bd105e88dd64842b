import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useId, useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, Problem, type Schemas } from "../../api/client";
import { useTelling } from "../../ui/Notice";
import { SearchField } from "../../ui/SearchField";
import { EntryEditor } from "./EntryEditor";
import { type Entry, entryText, readEntries, sameEntry } from "./entries";

type Props = {
  filter: string;
  list: string;
  count: number;
  tonight: boolean;
  onRules: (rules: Schemas["Rules"]) => void;
};

const SEARCH_FROM = 12;

/** A filter's list: searched, pasted into, filled from a file; every change is kept at once and can be undone. */
export function ListEditor({ filter, list, count, tonight, onRules }: Props) {
  const { t } = useTranslation();
  const id = useId();
  const queries = useQueryClient();
  const { tell } = useTelling();
  const [typed, setTyped] = useState("");
  const [search, setSearch] = useState("");
  const [mode, setMode] = useState("word");
  const [opened, setOpened] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const where = `${filter}.${list}`;
  const detailed = where === "phrases.entries" || where.startsWith("links.");
  const { data } = useQuery({
    queryKey: ["list", filter, list, search, count],
    queryFn: () =>
      ask(
        api.GET("/api/rules/lists/{key}/{name}", {
          params: { path: { key: filter, name: list }, query: { search, start: 0 } },
        }),
      ),
    placeholderData: keepPreviousData,
  });
  const entries = (data?.entries ?? []) as Entry[];
  const forTonight = (data?.tonight ?? []) as Entry[];

  const put = async (add: Entry[], take: Entry[], done?: string): Promise<boolean> => {
    try {
      const params = { path: { key: filter, name: list } };
      const asked = api.POST("/api/rules/lists/{key}/{name}", { params, body: { add, take, tonight } });
      onRules(await ask(asked));
      await queries.invalidateQueries({ queryKey: ["list", filter, list] });
      setProblem(null);
      if (done) tell(done, { label: t("commands.undo"), run: () => void put(take, add) });
      return true;
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      setProblem(error.detail);
      return false;
    }
  };
  const add = async (text: string) => {
    const fresh = readEntries(text, where, mode).filter((one) => !entries.some((old) => sameEntry(old, one)));
    if (!fresh.length) return setTyped("");
    if (await put(fresh, [], t("rules.listAdded", { count: fresh.length }))) setTyped("");
  };

  return (
    <section className="list-editor" aria-labelledby={`${id}-title`}>
      <div className="list-title">
        <h3 id={`${id}-title`}>{t(`rules.lists.${where}`)}</h3>
        <span className="quiet small">{t("rules.listCount", { count: data?.all ?? count })}</span>
      </div>
      <p className="quiet small">{t(`rules.listHelp.${where}`)}</p>
      {(data?.all ?? 0) > SEARCH_FROM && (
        <SearchField
          small
          label={t("rules.listSearch")}
          longLabel={`${t("rules.listSearch")}: ${t(`rules.lists.${where}`)}`}
          value={search}
          onChange={setSearch}
        />
      )}
      {data && !entries.length && <p className="quiet small">{t("rules.listEmpty")}</p>}
      <ul className="entries">
        {entries.map((entry) => {
          const text = entryText(entry);
          const isTonight = forTonight.some((one) => sameEntry(one, entry));
          if (opened === text)
            return (
              <li key={text}>
                <EntryEditor
                  entry={entry}
                  phrase={where === "phrases.entries"}
                  onDone={async (changed) => {
                    if (await put([changed], [entry])) setOpened(null);
                  }}
                  onClose={() => setOpened(null)}
                />
              </li>
            );
          return (
            <li key={text}>
              <span className="entry-text">
                {text}
                {typeof entry !== "string" && <EntryMarks entry={entry} />}
                {isTonight && <span className="plum small"> {t("rules.tonightMark")}</span>}
              </span>
              {detailed && where !== "links.allowed" && (
                <Button variant="link" size="sm" className="p-0" onClick={() => setOpened(text)}>
                  {t("rules.entryEdit")}
                </Button>
              )}
              <button
                type="button"
                className="drop"
                aria-label={t("list.remove", { item: text })}
                onClick={() => void put([], [entry], t("rules.listTaken"))}
              >
                ×
              </button>
            </li>
          );
        })}
      </ul>
      {data && data.count > entries.length && (
        <p className="quiet small">{t("rules.listShown", { shown: entries.length, count: data.count })}</p>
      )}
      <div className="list-add">
        <Form.Control
          as="textarea"
          rows={typed.includes("\n") ? 4 : 1}
          value={typed}
          isInvalid={Boolean(problem)}
          aria-label={`${t("rules.listAdd")}: ${t(`rules.lists.${where}`)}`}
          placeholder={t("rules.listPlaceholder")}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={() => typed.trim() && void add(typed)}
          onKeyDown={(event) => {
            if (event.key === "Enter" && !event.shiftKey) {
              event.preventDefault();
              void add(typed);
            }
          }}
        />
        {where === "phrases.entries" && (
          <Form.Select
            className="w-auto"
            value={mode}
            aria-label={t("rules.modeFor")}
            onMouseDown={(event) => event.stopPropagation()}
            onChange={(event) => setMode(event.target.value)}
          >
            {["word", "anywhere", "pattern"].map((one) => (
              <option key={one} value={one}>
                {t(`rules.modes.${one}`)}
              </option>
            ))}
          </Form.Select>
        )}
        <Button variant="outline-secondary" disabled={!typed.trim()} onClick={() => void add(typed)}>
          {t("rules.listAdd")}
        </Button>
        <label className="btn btn-outline-secondary file">
          {t("rules.listFile")}
          <input
            type="file"
            accept=".txt,.csv,text/plain"
            className="visually-hidden"
            onChange={(event) => {
              const file = event.target.files?.[0];
              event.target.value = "";
              if (file) void file.text().then(add);
            }}
          />
        </label>
      </div>
      {problem && <p className="clay small">{problem}</p>}
    </section>
  );
}

function EntryMarks({ entry }: { entry: Exclude<Entry, string> }) {
  const { t } = useTranslation();
  const words = [
    entry.mode && entry.mode !== "word" && t(`rules.entryMode.${entry.mode}`),
    entry.disguised === false && t("rules.entryPlain"),
    entry.step && t("rules.entryStep", { step: t(`rules.steps.${entry.step}`) }),
    entry.note,
  ].filter(Boolean);
  return words.length ? <span className="quiet small"> {words.join(" · ")}</span> : null;
}
