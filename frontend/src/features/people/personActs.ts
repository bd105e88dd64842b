import { useMemo } from "react";
import { useTranslation } from "react-i18next";
import { api, ask } from "../../api/client";
import { useGoOn } from "../../ui/useGoOn";
import { useRun } from "../../ui/useRun";

/** What can be done about a person, by their person string; each gives whether it was done. */
export function usePersonActs(person: string, name: string) {
  const { t } = useTranslation();
  const run = useRun();
  const goOn = useGoOn();
  return useMemo(() => {
    return {
      pass: (length: string) =>
        run(
          ask(api.POST("/api/desk/pass", { body: { person, length, end: false, over: false } })),
          t("desk.passGiven", { name }),
        ),
      timeOut: (seconds: number) =>
        goOn(
          (over) => ask(api.POST("/api/desk/people/timeout", { body: { person, seconds, over } })),
          t("justDone.timeOutAnyway"),
        ),
      ban: () =>
        goOn(
          (over) => ask(api.POST("/api/desk/people/ban", { body: { person, over } })),
          t("justDone.banAnyway"),
        ),
      lift: () =>
        goOn(
          (over) => ask(api.POST("/api/desk/people/lift", { body: { person, over } })),
          t("justDone.liftAnyway"),
        ),
      forgetArrival: () =>
        run(ask(api.POST("/api/stream/arrivals/forget", { body: { person } })), t("presses.forgotten")),
    };
  }, [person, name, t, run, goOn]);
}
