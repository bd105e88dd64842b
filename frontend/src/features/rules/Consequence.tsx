import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useTranslation } from "react-i18next";
import { api, ask } from "../../api/client";
import type { Values } from "./fields";
import { told } from "./tuning";

/** What the setting, saved or not, would do with the lines of the last streams. */
export function Consequence({ filter, changes, stamp }: { filter: string; changes: Values; stamp: unknown }) {
  const { t } = useTranslation();
  const { data } = useQuery({
    queryKey: ["consequence", filter, changes, stamp],
    queryFn: () => ask(api.POST("/api/rules/consequence", { body: { filter, values: changes } })),
    placeholderData: keepPreviousData,
    retry: false,
  });
  if (!data) return null;
  return (
    <div className="consequence">
      <h3>{t("rules.tuning")}</h3>
      {data.all === 0 ? (
        <p className="quiet">{t("rules.noLines")}</p>
      ) : (
        <p role="status">
          {t("rules.caughtCount", { stopped: data.stopped, all: data.all })}{" "}
          {data.exempt > 0 && t("rules.caughtExempt", { count: data.exempt })}
        </p>
      )}
      <ul>
        {told(data.caught).map(({ line, times }) => (
          <li key={`${line.platform}${line.id}`}>
            <b>{line.name}</b> {line.text}
            {times > 1 && <span className="quiet"> · {t("rules.times", { count: times })}</span>}
          </li>
        ))}
      </ul>
    </div>
  );
}
