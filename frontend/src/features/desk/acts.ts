import { useMemo } from "react";
import { useTranslation } from "react-i18next";
import { api, ask, type Schemas } from "../../api/client";
import type { Line } from "../../live/types";
import { useTelling } from "../../ui/Notice";

/** The acts of the Desk; what goes wrong is said at the edge of the page. */
export function useActs() {
  const { t } = useTranslation();
  const { tell, complain } = useTelling();
  return useMemo(() => {
    const run = async (asked: Promise<unknown>): Promise<boolean> => {
      try {
        await asked;
        return true;
      } catch (error) {
        complain(error);
        return false;
      }
    };
    const sayWhereNot = (done: Schemas["Done"]) => {
      for (const { effect, platform } of done.effects)
        if (effect === "refused") tell(t("bench.notTaken", { platform: t(`platforms.${platform}`) }));
    };
    return {
      undo: ({ platform, id }: Line) =>
        run(ask(api.POST("/api/desk/undo", { body: { platform, message: id } }))),
      remove: ({ platform, id }: Line) =>
        run(ask(api.POST("/api/desk/remove", { body: { platform, message: id } }))),
      timeOut: ({ platform, id }: Line, seconds: number) =>
        run(ask(api.POST("/api/desk/timeout", { body: { platform, message: id, seconds } }))),
      ban: ({ platform, id }: Line) =>
        run(ask(api.POST("/api/desk/ban", { body: { platform, message: id } }))),
      count: (name: string, step: string) => run(ask(api.POST("/api/desk/count", { body: { name, step } }))),
      title: (title: string) => run(ask(api.POST("/api/desk/title", { body: { title } })).then(sayWhereNot)),
      say: (text: string) => run(ask(api.POST("/api/desk/say", { body: { text } }))),
      clear: (command: string, identity: string | null) =>
        run(ask(api.POST("/api/desk/clear", { body: { command, identity } }))),
    };
  }, [complain, tell, t]);
}
