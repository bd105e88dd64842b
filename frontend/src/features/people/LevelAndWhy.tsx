import { useTranslation } from "react-i18next";
import type { Schemas } from "../../api/client";
import { day, inWords } from "../../ui/time";
import { useNow } from "../../ui/useLive";

type Card = Schemas["PersonCard"];

/** Level and what gives it, since when they talk here, strikes with their end, and what they may do for a while. */
export function LevelAndWhy({ card }: { card: Card }) {
  const { t } = useTranslation();
  const now = useNow(10_000);
  const platform = (name: string) => t(`platforms.${name}`, { defaultValue: name });
  const since = Math.min(...card.accounts.flatMap((one) => (one.first === null ? [] : [one.first])));
  const standing = card.strikes.filter((one) => one.stands);
  const lasts = (until: number) => inWords(t, Math.max(0, until / 1000 - now) / 1000);
  return (
    <ul className="facts">
      <li>
        <b>{t(`people.levels.${card.level}`)}</b>{" "}
        <span className="quiet">
          {card.why
            .map((why) =>
              t(`people.why.${why.by}`, {
                level: t(`people.levels.${why.level}`),
                platform: why.platform && platform(why.platform),
              }),
            )
            .join(" · ")}
        </span>
        {card.lists.includes("ignored") && <span className="chip slate">{t("people.ignoredChip")}</span>}
      </li>
      <li>
        {Number.isFinite(since) ? t("people.since", { when: day(since) }) : t("people.never")}{" "}
        <span className="quiet">{t("people.lines", { count: card.messages })}</span>
      </li>
      <li className={card.standing ? "clay" : "quiet"}>
        {card.standing
          ? t("people.strikes", {
              count: card.standing,
              until: lasts(Math.min(...standing.map((one) => one.until))),
            })
          : t("people.noStrikes")}
      </li>
      {card.passes.map((pass) => (
        <li key={pass.filters.join()} className="slate">
          {t("people.pass", {
            filters: pass.filters.map((key) => t(`filters.${key}`)).join(", "),
            left: pass.until === null ? t("marks.passedStream") : lasts(pass.until),
          })}
        </li>
      ))}
    </ul>
  );
}
