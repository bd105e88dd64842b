import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { Link, useNavigate, useParams } from "react-router";
import { api, ask, type Schemas } from "../../api/client";
import { useTelling } from "../../ui/Notice";
import { SearchField } from "../../ui/SearchField";
import { useMe } from "../../ui/useMe";
import { useTakeBack } from "../../ui/useTakeBack";
import { addressOf } from "./addresses";
import { BuiltInEditor } from "./BuiltInEditor";
import { CommandEditor } from "./CommandEditor";
import { CommandList } from "./CommandList";
import { Several } from "./Several";
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
  const [ticked, setTicked] = useState<Set<string> | null>(null);
  const takeBack = useTakeBack();
  const may = Boolean(me?.may.includes("commands"));

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
      const { name: gone, revision } = view;
      const isCue = kind === "cue";
      const drop = { params: { path: { name: gone }, query: { revision } } };
      const done = await ask(
        isCue ? api.DELETE("/api/cues/{name}", drop) : api.DELETE("/api/commands/{name}", drop),
      );
      const back = async () => {
        await takeBack(done.number);
        navigate(addressOf(kind, gone));
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

  const tick = (names: string[], on: boolean) =>
    setTicked((before) => {
      const now = new Set(before);
      for (const one of names) on ? now.add(one) : now.delete(one);
      return now;
    });
  const there = new Set(data?.commands.map((view) => view.name));
  return (
    <main className="room">
      <aside className="list">
        <h1 className="visually-hidden">{t("commands.title")}</h1>
        <div className="list-head">
          <SearchField label={t("commands.search")} value={search} onChange={setSearch} />
          {may && (
            <div className="d-flex gap-2">
              <Button className="flex-grow-1" onClick={() => navigate(`/commands/${NEW}`)}>
                {t("commands.new")}
              </Button>
              <Button variant="outline-secondary" onClick={() => navigate(`/commands/${NEW_CUE}`)}>
                {t("cues.new")}
              </Button>
              <Button
                variant="outline-secondary"
                active={ticked !== null}
                onClick={() => setTicked(ticked ? null : new Set())}
              >
                {t("several.open")}
              </Button>
            </div>
          )}
        </div>
        <CommandList
          data={data}
          search={search}
          may={may}
          ticked={ticked}
          onTick={tick}
          onSwitch={(kind, view, on) => void save(kind, view, { on })}
        />
      </aside>
      <section className="chosen">
        {ticked && data ? (
          <Several
            names={[...ticked].filter((one) => there.has(one))}
            all={data}
            onDone={() => setTicked(null)}
          />
        ) : (
          <Chosen name={name} data={data} may={may} onRemove={(kind, view) => void remove(kind, view)} />
        )}
      </section>
    </main>
  );
}

type ChosenProps = {
  name: string | undefined;
  data: Schemas["Commands"] | undefined;
  may: boolean;
  onRemove: (kind: Kind, view: Schemas["CommandView"]) => void;
};

/** What the address names: a command, a cue (`~name`), a built-in (`/key`), or a new one. */
function Chosen({ name, data, may, onRemove }: ChosenProps) {
  const { t } = useTranslation();
  const builtIn = data?.built_ins.find((view) => `/${view.key}` === name);
  const kind = name?.startsWith("~") ? "cue" : "command";
  const views = kind === "cue" ? data?.cues : data?.commands;
  const view = views?.find((one) => one.name === (kind === "cue" ? name?.slice(1) : name)) ?? null;
  if (data && builtIn) return <BuiltInEditor key={builtIn.key} view={builtIn} all={data} may={may} />;
  if (view || (may && (name === NEW || name === NEW_CUE)))
    return (
      <CommandEditor
        key={name}
        kind={kind}
        view={view}
        all={data}
        may={may}
        onRemove={view ? () => onRemove(kind, view) : undefined}
      />
    );
  return (
    <div className="start">
      <h2 className="room-title">{t("commands.title")}</h2>
      <p>{t("commands.start")}</p>
      <p className="quiet">{t("commands.pick")}</p>
      <p>
        <Link to="/setup/kits">{t("commands.toKits")}</Link>
      </p>
    </div>
  );
}
