import { useTranslation } from "react-i18next";
import { inWords } from "../../ui/time";
import { useLive } from "../../ui/useLive";

/** The channel's ladder, with where so many strikes stand on it and what the next step would be. */
export function LadderView({ strikes }: { strikes: number }) {
  const { t } = useTranslation();
  const ladder = useLive((state) => state.parts.ladder);
  if (!ladder?.steps.length) return null;
  const here = ladder.steps.findLastIndex((step) => step.strikes <= strikes);
  return (
    <>
      <ol className="ladder" aria-label={t("why.ladderTitle")}>
        {ladder.steps.map((step, place) => (
          <li
            key={step.strikes}
            className={place === here ? "here" : place === here + 1 ? "next" : ""}
            aria-current={place === here ? "step" : undefined}
          >
            <b>{t(`marks.${step.step}`, { time: step.seconds ? inWords(t, step.seconds) : "" })}</b>
            <span>
              {t("why.atStrikes", { count: step.strikes })}
              {place === here && ` · ${t("why.here")}`}
              {place === here + 1 && ` · ${t("why.next")}`}
            </span>
          </li>
        ))}
      </ol>
      <p className="quiet small">{t("why.expires", { time: inWords(t, ladder.memory / 1e6) })}</p>
    </>
  );
}
