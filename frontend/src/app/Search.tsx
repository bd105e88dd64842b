import { useQuery } from "@tanstack/react-query";
import { Command } from "cmdk";
import { useState } from "react";
import { Modal } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { useNavigate } from "react-router";
import { api, ask } from "../api/client";
import { useTelling } from "../ui/Notice";
import { useLive } from "../ui/useLive";
import { useMe } from "../ui/useMe";
import { useRested } from "../ui/usePreview";
import { ROOMS } from "./rooms";

const FILTERS = [
  "capitals",
  "symbols",
  "emotes",
  "length",
  "repeats",
  "resends",
  "pace",
  "links",
  "phrases",
  "names",
  "mentions",
  "actions",
  "false_notice",
  "copycats",
  "newcomers",
];
const SETUP = ["channel", "platforms", "team", "sessions", "kits"];
const STAGE = ["categories", "quotes", "shoutouts", "arrivals", "happenings", "markers"];
const LISTS = ["regulars", "leads", "ignored"];

type Props = { onHide: () => void; onTryOut: () => void };

/** Finds people, commands, settings and acts by a few letters, and goes there. */
export function Search({ onHide, onTryOut }: Props) {
  const { t } = useTranslation();
  const navigate = useNavigate();
  const { data: me } = useMe();
  const { complain, tell } = useTelling();
  const [typed, setTyped] = useState("");
  const text = useRested(typed.trim());
  const may = (act: string) => Boolean(me?.may.includes(act));
  const prefix = useLive((state) => state.parts.channel?.prefix ?? "!");
  const counters = useLive((state) => state.parts.counters);
  const rotas = useLive((state) => state.parts.notices);
  const bridge = useLive((state) => state.parts.bridge);
  const { data: commands } = useQuery({
    queryKey: ["commands"],
    queryFn: () => ask(api.GET("/api/commands")),
  });
  const { data: people } = useQuery({
    queryKey: ["people", "found", text, false],
    queryFn: () => ask(api.GET("/api/people", { params: { query: { search: text } } })),
    enabled: may("card") && text.length > 1,
  });
  const go = (path: string) => {
    onHide();
    navigate(path);
  };
  const run = async (act: Promise<unknown>, said: string) => {
    onHide();
    await act.then(() => tell(said)).catch(complain);
  };
  const item = (key: string, words: string, about: string, act: () => void, also: string[] = []) => (
    <Command.Item key={key} value={key} keywords={[words, about, ...also]} onSelect={act}>
      <span>{words}</span> <span className="quiet">{about}</span>
    </Command.Item>
  );
  return (
    <Modal show onHide={onHide} animation={false} className="search-all" aria-label={t("search.title")}>
      <Command label={t("search.title")}>
        <Command.Input
          autoFocus
          value={typed}
          onValueChange={setTyped}
          className="form-control"
          placeholder={t("search.hint")}
        />
        <Command.List>
          <Command.Empty>{t("search.none")}</Command.Empty>
          {text.length > 1 && people && (
            <Command.Group heading={t("search.people")}>
              {people.people
                .slice(0, 8)
                .map((one) =>
                  item(
                    `person ${one.key}`,
                    one.name,
                    t(`platforms.${one.platform}`, { defaultValue: one.platform }),
                    () => go(`/people/card/${encodeURIComponent(one.key)}`),
                    [text, one.login],
                  ),
                )}
            </Command.Group>
          )}
          <Command.Group heading={t("search.commands")}>
            {commands?.commands.map((one) =>
              item(`command ${one.name}`, prefix + one.name, "", () =>
                go(`/commands/${encodeURIComponent(one.name)}`),
              ),
            )}
            {commands?.built_ins.map((one) =>
              item(`built-in ${one.key}`, prefix + one.names[0], t("search.builtIn"), () =>
                go(`/commands/${encodeURIComponent(`/${one.key}`)}`),
              ),
            )}
            {rotas?.map((one) =>
              item(`rota ${one.name}`, one.name, t("rooms.timers"), () =>
                go(`/timers/${encodeURIComponent(one.name)}`),
              ),
            )}
            {counters?.map((one) =>
              item(`counter ${one.name}`, one.label, t("bench.counters"), () =>
                go(`/stage/counter/${encodeURIComponent(one.name)}`),
              ),
            )}
          </Command.Group>
          <Command.Group heading={t("search.settings")}>
            {ROOMS.map(([path, name]) => item(`room ${name}`, t(`rooms.${name}`), "", () => go(path)))}
            {FILTERS.map((key) =>
              item(`filter ${key}`, t(`filters.${key}`), t("rooms.rules"), () => go(`/rules/${key}`)),
            )}
            {SETUP.map((key) =>
              item(`setup ${key}`, t(`setup.parts.${key}`), t("rooms.setup"), () => go(`/setup/${key}`)),
            )}
            {STAGE.map((key) =>
              item(`stage ${key}`, t(`stage.parts.${key}`), t("rooms.stage"), () => go(`/stage/${key}`)),
            )}
            {LISTS.map((key) =>
              item(`list ${key}`, t(`people.lists.${key}`), t("rooms.people"), () =>
                go(`/people/lists/${key}`),
              ),
            )}
            {item("back", t("sectionBack.title"), t("rooms.records"), () => go("/records/back"))}
          </Command.Group>
          <Command.Group heading={t("search.acts")}>
            {may("count") &&
              counters?.map((one) =>
                item(`count ${one.name}`, t("bench.more", { label: one.label }), `${one.value}`, () => {
                  const body = { name: one.name, step: "+1" };
                  void run(
                    ask(api.POST("/api/desk/count", { body })),
                    t("search.counted", { label: one.label }),
                  );
                }),
              )}
            {may("drawbridge") &&
              item("drawbridge", t(bridge?.up ? "bench.lower" : "bench.raise"), "", () => {
                const body = { up: !bridge?.up };
                const said = t(bridge?.up ? "search.lowered" : "search.raised");
                void run(ask(api.POST("/api/desk/drawbridge", { body })), said);
              })}
            {item("try-out", t("tryOut.open"), t("search.tryOut"), () => {
              onHide();
              onTryOut();
            })}
          </Command.Group>
        </Command.List>
      </Command>
    </Modal>
  );
}
