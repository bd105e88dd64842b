import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useTranslation } from "react-i18next";
import { api, ask } from "../../api/client";
import type { Values } from "./findings";

/** What the setting, saved or not, would do with the lines at the Desk. */
export function Consequence({ filter, changes }: { filter: string; changes: Values }) {
  const { t } = useTranslation();
  const { data } = useQuery({
    queryKey: ["consequence", filter, changes],
    queryFn: () => ask(api.POST("/api/rules/consequence", { body: { filter, values: changes } })),
    placeholderData: keepPreviousData,
    retry: false,
  });
  if (!data) return null;
  return (
    <div className="consequence">
      <h3>{t("rules.caught")}</h3>
      <p>
        {t("rules.caughtCount", { caught: data.caught.length, all: data.all })}
        {!data.caught.length && ` ${t("rules.none")}`}
      </p>
      <ul>
        {data.caught.map((line) => (
          <li key={`${line.platform}${line.id}`}>
            <b>{line.name}</b> {line.text}
          </li>
        ))}
      </ul>
    </div>
  );
}
