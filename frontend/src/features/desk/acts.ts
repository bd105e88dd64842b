import { useMemo } from "react";
import { useTranslation } from "react-i18next";
import { api, ask, type Schemas } from "../../api/client";
import type { Line } from "../../live/types";
import { useTelling } from "../../ui/Notice";
import { useGoOn } from "../../ui/useGoOn";
import { useRun } from "../../ui/useRun";

type Act<T extends unknown[]> = (...about: T) => Promise<boolean>;

export type Acts = {
  undo: Act<[Line]>;
  remove: Act<[Line]>;
  timeOut: Act<[Line, number]>;
  ban: Act<[Line]>;
  pass: Act<[Line, string]>;
  endPass: Act<[string]>;
  look: Act<[Line]>;
  settle: Act<[string, string, "right" | "wrong"]>;
  drawbridge: Act<[boolean]>;
  count: Act<[string, string]>;
  title: Act<[string]>;
  say: Act<[string]>;
  clear: Act<[string, string | null]>;
  overlap: Act<[string, string]>;
};

/** The acts of the Desk; what goes wrong is said at the edge of the page. */
export function useActs(): Acts {
  const { t } = useTranslation();
  const { tell } = useTelling();
  const run = useRun();
  const goOn = useGoOn();
  return useMemo(() => {
    const sayWhereNot = (done: Schemas["Done"]) => {
      for (const { effect, platform } of done.effects)
        if (effect === "refused") tell(t("bench.notTaken", { platform: t(`platforms.${platform}`) }));
    };
    return {
      undo: ({ platform, id }: Line) =>
        goOn(
          (over) => ask(api.POST("/api/desk/undo", { body: { platform, message: id, over } })),
          t("justDone.undoAnyway"),
        ),
      remove: ({ platform, id }: Line) =>
        goOn(
          (over) => ask(api.POST("/api/desk/remove", { body: { platform, message: id, over } })),
          t("justDone.removeAnyway"),
        ),
      timeOut: ({ platform, id }: Line, seconds: number) =>
        goOn(
          (over) => ask(api.POST("/api/desk/timeout", { body: { platform, message: id, seconds, over } })),
          t("justDone.timeOutAnyway"),
        ),
      ban: ({ platform, id }: Line) =>
        goOn(
          (over) => ask(api.POST("/api/desk/ban", { body: { platform, message: id, over } })),
          t("justDone.banAnyway"),
        ),
      pass: async (line: Line, length: string) => {
        const { platform, id, person } = line;
        const done = await run(
          ask(
            api.POST("/api/desk/pass", { body: { platform, message: id, length, end: false, over: false } }),
          ),
        );
        if (done) tell(t("desk.passGiven", { name: person.name }));
        return done;
      },
      endPass: (person: string) =>
        run(ask(api.POST("/api/desk/pass", { body: { person, end: true, over: false } }))),
      look: ({ platform, id }: Line) =>
        run(ask(api.POST("/api/desk/look", { body: { platform, message: id, over: false } }))),
      settle: (platform: string, message: string, mark: "right" | "wrong") =>
        run(ask(api.POST("/api/desk/settle", { body: { platform, message, mark, over: false } }))),
      drawbridge: (up: boolean) => run(ask(api.POST("/api/desk/drawbridge", { body: { up } }))),
      count: (name: string, step: string) => run(ask(api.POST("/api/desk/count", { body: { name, step } }))),
      title: (title: string) => run(ask(api.POST("/api/desk/title", { body: { title } })).then(sayWhereNot)),
      say: (text: string) => run(ask(api.POST("/api/desk/say", { body: { text } }))),
      overlap: (key: string, person: string) =>
        run(ask(api.POST("/api/desk/overlap", { body: { key, person } }))),
      clear: (command: string, identity: string | null) =>
        run(ask(api.POST("/api/desk/clear", { body: { command, identity } }))),
    };
  }, [run, tell, t, goOn]);
}
