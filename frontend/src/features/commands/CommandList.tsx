import { useMemo } from "react";
import { Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { NavLink } from "react-router";
import type { Schemas } from "../../api/client";
import { addressOf } from "./addresses";
import type { Command, Kind } from "./types";

type Props = {
  data: Schemas["Commands"] | undefined;
  search: string;
  may: boolean;
  /** The commands that are ticked, while several are being chosen; null otherwise. */
  ticked: Set<string> | null;
  onTick: (names: string[], on: boolean) => void;
  onSwitch: (kind: Kind, view: Schemas["CommandView"], on: boolean) => void;
};

/** Every command by folder, then cues, then built-ins, as far as they match the search. */
export function CommandList({ data, search, may, ticked, onTick, onSwitch }: Props) {
  const { t } = useTranslation();
  const prefix = data?.prefix ?? "!";
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
  const row = { may, onSwitch };
  return (
    <div className="list-body">
      {folders.map(([folder, views]) => (
        <section key={folder}>
          <h2>
            {ticked ? (
              <Form.Check
                id={`folder-${folder}`}
                label={folder}
                checked={views.every((view) => ticked.has(view.name))}
                onChange={(event) =>
                  onTick(
                    views.map((view) => view.name),
                    event.target.checked,
                  )
                }
              />
            ) : (
              folder
            )}
          </h2>
          {views.map((view) => (
            <Row
              key={view.name}
              kind="command"
              view={view}
              prefix={prefix}
              ticked={ticked?.has(view.name)}
              onTick={onTick}
              {...row}
            />
          ))}
        </section>
      ))}
      {!ticked && cues.length > 0 && (
        <section>
          <h2>{t("cues.title")}</h2>
          {cues.map((view) => (
            <Row key={view.name} kind="cue" view={view} prefix="" onTick={onTick} {...row} />
          ))}
        </section>
      )}
      {!ticked && builtIns.length > 0 && (
        <section>
          <h2>{t("commands.builtIns")}</h2>
          {builtIns.map((view) => (
            <div key={view.key} className="list-row">
              <NavLink to={addressOf("command", `/${view.key}`)}>
                <b>
                  {prefix}
                  {view.names[0]}
                </b>
                <span className="quiet">
                  {view.on ? t("commands.uses", { count: view.uses }) : t("commands.off")}
                </span>
              </NavLink>
            </div>
          ))}
        </section>
      )}
    </div>
  );
}

type RowProps = Pick<Props, "may" | "onTick" | "onSwitch"> & {
  kind: Kind;
  view: Schemas["CommandView"];
  prefix: string;
  ticked?: boolean;
};

/** A command or cue in the list, with its switch, or its tick while several are being chosen. */
function Row({ kind, view, prefix, may, ticked, onTick, onSwitch }: RowProps) {
  const { t } = useTranslation();
  const name = `${prefix}${view.name}`;
  if (ticked !== undefined)
    return (
      <div className="list-row tick-row">
        <Form.Check
          id={`several-${view.name}`}
          label={name}
          checked={ticked}
          onChange={(event) => onTick([view.name], event.target.checked)}
        />
      </div>
    );
  return (
    <div className="list-row">
      <NavLink to={addressOf(kind, view.name)}>
        <b>{name}</b>
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
