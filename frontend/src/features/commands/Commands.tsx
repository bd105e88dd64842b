import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { NavLink, useNavigate, useParams } from "react-router";
import { api, ask, type Schemas } from "../../api/client";
import { useTelling } from "../../ui/Notice";
import { useMe } from "../../ui/useMe";
import { CommandEditor } from "./CommandEditor";
import type { Command, Kind } from "./types";

const NEW = "+";
const NEW_CUE = "~+";

/** Every command on the left, the chosen one on the right. */
export function Commands() {
  const { t } = useTranslation();
  const { name } = useParams();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const { tell, complain } = useTelling();
  const { data: me } = useMe();
  const { data } = useQuery({ queryKey: ["commands"], queryFn: () => ask(api.GET("/api/commands")) });
  const [search, setSearch] = useState("");
  const may = Boolean(me?.may.includes("commands"));
  const chosen = data?.commands.find((view) => view.name === name);
  const cue = name?.startsWith("~") ? data?.cues.find((view) => `~${view.name}` === name) : undefined;
  const builtIn = data?.built_ins.find((view) => `/${view.key}` === name);

  const save = async (kind: Kind, view: Schemas["CommandView"], changes: Partial<Command>) => {
    try {
      const command = { ...view.command, ...changes };
      const asked = { params: { path: { name: view.name } }, body: { command, revision: view.revision } };
      await ask(kind === "cue" ? api.PUT("/api/cues/{name}", asked) : api.PUT("/api/commands/{name}", asked));
    } catch (error) {
      complain(error);
    }
    await queries.invalidateQueries({ queryKey: ["commands"] });
  };

  const remove = async (kind: Kind, view: Schemas["CommandView"]) => {
    try {
      const { name: gone, revision, command } = view;
      const isCue = kind === "cue";
      const drop = { params: { path: { name: gone }, query: { revision } } };
      await ask(isCue ? api.DELETE("/api/cues/{name}", drop) : api.DELETE("/api/commands/{name}", drop));
      const back = async () => {
        const again = { params: { path: { name: gone } }, body: { command, revision: null } };
        await ask(isCue ? api.PUT("/api/cues/{name}", again) : api.PUT("/api/commands/{name}", again)).catch(
          complain,
        );
        await queries.invalidateQueries({ queryKey: ["commands"] });
        navigate(`/commands/${encodeURIComponent((isCue ? "~" : "") + gone)}`);
      };
      navigate("/commands");
      tell(t(isCue ? "cues.removed" : "commands.removed", { name: gone }), {
        label: t("commands.undo"),
        run: () => void back(),
      });
    } catch (error) {
      complain(error);
    }
    await queries.invalidateQueries({ queryKey: ["commands"] });
  };

  const prefix = data?.prefix ?? "!";
  return (
    <main className="room">
      <aside className="list">
        <h1 className="visually-hidden">{t("commands.title")}</h1>
        <div className="list-head">
          <Form.Control
            type="search"
            value={search}
            placeholder={t("commands.search")}
            aria-label={t("commands.search")}
            onChange={(event) => setSearch(event.target.value)}
          />
          {may && (
            <div className="d-flex gap-2">
              <Button className="flex-grow-1" onClick={() => navigate(`/commands/${NEW}`)}>
                {t("commands.new")}
              </Button>
              <Button variant="outline-secondary" onClick={() => navigate(`/commands/${NEW_CUE}`)}>
                {t("cues.new")}
              </Button>
            </div>
          )}
        </div>
        <CommandList
          data={data}
          search={search}
          prefix={prefix}
          may={may}
          onSwitch={(kind, view, on) => void save(kind, view, { on })}
        />
      </aside>
      <section className="chosen">
        {name === NEW && may && <CommandEditor key={NEW} view={null} all={data} may />}
        {chosen && (
          <CommandEditor
            key={chosen.name}
            view={chosen}
            all={data}
            may={may}
            onRemove={() => void remove("command", chosen)}
          />
        )}
        {name === NEW_CUE && may && <CommandEditor key={NEW_CUE} kind="cue" view={null} all={data} may />}
        {cue && (
          <CommandEditor
            key={`~${cue.name}`}
            kind="cue"
            view={cue}
            all={data}
            may={may}
            onRemove={() => void remove("cue", cue)}
          />
        )}
        {builtIn && <BuiltIn view={builtIn} prefix={prefix} />}
        {!chosen && !cue && !builtIn && name !== NEW && name !== NEW_CUE && (
          <div className="start">
            <h2 className="room-title">{t("commands.title")}</h2>
            <p>{t("commands.start")}</p>
            <p className="quiet">{t("commands.pick")}</p>
          </div>
        )}
      </section>
    </main>
  );
}

type ListProps = {
  data: Schemas["Commands"] | undefined;
  search: string;
  prefix: string;
  may: boolean;
  onSwitch: (kind: Kind, view: Schemas["CommandView"], on: boolean) => void;
};

function CommandList({ data, search, prefix, may, onSwitch }: ListProps) {
  const { t } = useTranslation();
  const wanted = search.trim().toLowerCase().replace(prefix, "");
  const folders = useMemo(() => {
    const found = new Map<string, Schemas["CommandView"][]>();
    for (const view of data?.commands ?? []) {
      const command = view.command as Command;
      if (!textOf(command).includes(wanted)) continue;
      const folder = command.folder || t("commands.loose");
      found.set(folder, [...(found.get(folder) ?? []), view]);
    }
    return [...found].sort(([a], [b]) => a.localeCompare(b));
  }, [data, wanted, t]);
  const builtIns = data?.built_ins.filter((view) => view.names.some((name) => name.includes(wanted))) ?? [];
  const cues = data?.cues.filter((view) => textOf(view.command as Command).includes(wanted)) ?? [];
  if (data && !folders.length && !builtIns.length && !cues.length)
    return <p className="quiet empty">{t("commands.none")}</p>;
  return (
    <div className="list-body">
      {folders.map(([folder, views]) => (
        <section key={folder}>
          <h2>{folder}</h2>
          {views.map((view) => (
            <Row key={view.name} kind="command" view={view} prefix={prefix} may={may} onSwitch={onSwitch} />
          ))}
        </section>
      ))}
      {cues.length > 0 && (
        <section>
          <h2>{t("cues.title")}</h2>
          {cues.map((view) => (
            <Row key={view.name} kind="cue" view={view} prefix="" may={may} onSwitch={onSwitch} />
          ))}
        </section>
      )}
      {builtIns.length > 0 && (
        <section>
          <h2>{t("commands.builtIns")}</h2>
          {builtIns.map((view) => (
            <div key={view.key} className="list-row">
              <NavLink to={`/commands/${encodeURIComponent(`/${view.key}`)}`}>
                <b>
                  {prefix}
                  {view.names[0]}
                </b>
                <span className="quiet">{t("commands.uses", { count: view.uses })}</span>
              </NavLink>
            </div>
          ))}
        </section>
      )}
    </div>
  );
}

type RowProps = Pick<ListProps, "prefix" | "may" | "onSwitch"> & {
  kind: Kind;
  view: Schemas["CommandView"];
};

/** A command or cue in the list, with its switch. */
function Row({ kind, view, prefix, may, onSwitch }: RowProps) {
  const { t } = useTranslation();
  return (
    <div className="list-row">
      <NavLink to={`/commands/${encodeURIComponent((kind === "cue" ? "~" : "") + view.name)}`}>
        <b>
          {prefix}
          {view.name}
        </b>
        <span className="quiet">{t("commands.uses", { count: view.uses })}</span>
      </NavLink>
      <Form.Check
        type="switch"
        aria-label={`${t("commands.on")}: ${view.name}`}
        checked={(view.command as Command).on !== false}
        disabled={!may}
        onChange={(event) => onSwitch(kind, view, event.target.checked)}
      />
    </div>
  );
}

/** All that is searched of a command or cue. */
function textOf({ name, reply, aliases = [], hears = [] }: Command): string {
  return [name, reply, aliases, hears].flat(2).join(" ").toLowerCase();
}

function BuiltIn({ view, prefix }: { view: Schemas["BuiltInView"]; prefix: string }) {
  const { t } = useTranslation();
  return (
    <div>
      <h2 className="room-title">
        {prefix}
        {view.names[0]}
      </h2>
      <p>{t(`commands.builtIn.${view.key}`)}</p>
      <p className="quiet">{t("commands.builtInLead", { who: t(`levelsUp.${view.level}`) })}</p>
    </div>
  );
}
