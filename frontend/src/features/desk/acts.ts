import { useMemo } from "react";
import { api, ask } from "../../api/client";
import type { Line } from "../../live/types";
import { useTelling } from "../../ui/Notice";

/** The acts of the Desk; what goes wrong is said at the edge of the page. */
export function useActs() {
  const { complain } = useTelling();
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
    return {
      undo: ({ platform, id }: Line) =>
        run(ask(api.POST("/api/desk/undo", { body: { platform, message: id } }))),
      count: (name: string, step: string) => run(ask(api.POST("/api/desk/count", { body: { name, step } }))),
      title: (title: string) => run(ask(api.POST("/api/desk/title", { body: { title } }))),
      say: (text: string) => run(ask(api.POST("/api/desk/say", { body: { text } }))),
      clear: (command: string, identity: string | null) =>
        run(ask(api.POST("/api/desk/clear", { body: { command, identity } }))),
    };
  }, [complain]);
}
