import { useCallback } from "react";
import { useTranslation } from "react-i18next";
import { Problem } from "../api/client";
import { useTelling } from "./Notice";
import { inWords } from "./time";

type JustDone = { who: string; outcome: string; at: number; seconds: number; goes_on: boolean };
type Act = (over: boolean) => Promise<unknown>;

function justDone(error: unknown): JustDone | null {
  const done = error instanceof Problem ? (error.theirs as Partial<JustDone> | null) : null;
  return done && typeof done.goes_on === "boolean" ? (done as JustDone) : null;
}

/**
 * Runs an act on a line or person. Where another moderator was there a moment ago, that is said, and a stronger act
 * waits for one more press.
 */
export function useGoOn() {
  const { t } = useTranslation();
  const { tell, complain } = useTelling();
  return useCallback(
    async (act: Act, words: string): Promise<boolean> => {
      try {
        await act(false);
        return true;
      } catch (error) {
        const done = justDone(error);
        if (!done) {
          complain(error);
          return false;
        }
        const what = t(`justDone.${done.outcome}`, { who: done.who, time: inWords(t, done.seconds) });
        const again = done.goes_on ? { label: words, run: () => void act(true).catch(complain) } : undefined;
        tell(`${what} ${t(done.goes_on ? "justDone.goOn" : "justDone.enough")}`, again);
        return false;
      }
    },
    [t, tell, complain],
  );
}
