import { useTranslation } from "react-i18next";
import type { Schemas } from "../../api/client";
import { inWords, when } from "../../ui/time";

/** What was done about a person, by the judge and by hand, newest first. */
export function Done({ acts, most }: { acts: Schemas["ActView"][]; most: number }) {
  const { t } = useTranslation();
  if (!acts.length) return null;
  return (
    <section>
      <h3>{t("people.done")}</h3>
      <ul className="done">
        {acts.slice(0, most).map((act) => (
          <li key={`${act.at}${act.what}`}>
            <time className="quiet">{when(act.at)}</time>{" "}
            <b className={act.undone ? "undone" : ""}>
              {t(`people.acts.${act.what}`, {
                defaultValue: act.what,
                time: act.seconds ? inWords(t, act.seconds) : "",
              })}
            </b>{" "}
            <span className="quiet">
              {t("people.byWhom", { who: act.by ?? t("people.judge") })}
              {act.about && ` · ${act.about}`}
              {act.undone && ` · ${t("people.undone")}`}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
