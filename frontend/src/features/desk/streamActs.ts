import { useMemo } from "react";
import { useTranslation } from "react-i18next";
import { api, ask, type Schemas } from "../../api/client";
import { useTelling } from "../../ui/Notice";

type Happened = Schemas["Happened"];

/** The bench's acts for running the stream; what a platform did not take is said, each gives whether all went well. */
export function useStreamActs() {
  const { t } = useTranslation();
  const { tell, complain } = useTelling();
  return useMemo(() => {
    const run = async (
      asked: Promise<Happened>,
      said?: (done: Happened) => string | null,
    ): Promise<boolean> => {
      try {
        const done = await asked;
        for (const sentence of done.says) tell(sentence);
        const words = done.says.length ? null : said?.(done);
        if (words) tell(words);
        return done.says.length === 0 || done.effects.some(({ effect }) => effect === "category");
      } catch (error) {
        complain(error);
        return false;
      }
    };
    return {
      setCategory: (category: string) => run(ask(api.POST("/api/stream/category", { body: { category } }))),
      mark: (note: string) =>
        run(ask(api.POST("/api/stream/marker", { body: { note } })), () => t("presses.marked")),
      clip: () =>
        run(ask(api.POST("/api/stream/clip")), (done) =>
          done.link ? t("presses.clipMade", { link: done.link }) : t("presses.clipAsked"),
        ),
      startAd: (platform: string, seconds: number) =>
        run(ask(api.POST("/api/stream/ad", { body: { platform, seconds } }))),
      raid: (name: string, platform: string) =>
        run(ask(api.POST("/api/stream/raid", { body: { name, platform } }))),
      cancelRaid: () => run(ask(api.DELETE("/api/stream/raid")), () => t("presses.raidOff")),
      shoutOut: (name: string, platform: string) =>
        run(ask(api.POST("/api/stream/shoutout", { body: { name, platform } })), () =>
          t("presses.shoutoutGiven", { name }),
        ),
      forgetArrivals: (person: string | null) =>
        run(ask(api.POST("/api/stream/arrivals/forget", { body: { person } })), () => t("presses.forgotten")),
    };
  }, [complain, tell, t]);
}
