import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { api, ask } from "../../api/client";
import { type Field, type FilterView, type Values, valueWords } from "./fields";
import { Histogram } from "./Histogram";
import { axisEnd, caughtBy, spread, told } from "./tuning";

const SHOWN = 12;

type Props = {
  filter: FilterView;
  fields: Field[];
  values: Values;
  changes: Values;
  may: boolean;
  change: (changes: Values) => void;
};

/** The lines of the last streams by one of the filter's measures, and what its limit catches of them. */
export function Tuning({ filter, fields, values, changes, may, change }: Props) {
  const { t } = useTranslation();
  const [name, setName] = useState(fields[0]?.name ?? "");
  const field = fields.find((one) => one.name === name) ?? fields[0];
  const others: Values = Object.fromEntries(Object.entries(changes).filter(([key]) => key !== field?.name));
  const { data } = useQuery({
    queryKey: ["tuning", filter.key, field?.name, others],
    queryFn: () =>
      ask(
        api.POST("/api/rules/tuning", {
          body: { filter: filter.key, field: field?.name ?? "", values: others },
        }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
  });
  if (!field) return null;
  const label = t(`rules.fields.${field.name}`);
  const limit = Number(values[field.name]);
  const words = (value: number) => valueWords(t, field.kind, value);
  const tabs = fields.length > 1 && (
    <div className="tabs" role="tablist">
      {fields.map((one) => (
        <button
          key={one.name}
          type="button"
          role="tab"
          aria-selected={one.name === field.name}
          onClick={() => setName(one.name)}
        >
          {t(`rules.fields.${one.name}`)}
        </button>
      ))}
    </div>
  );
  if (!data) return null;
  const isShare = field.kind === "share";
  const end = axisEnd([Math.max(data.values[0] ?? 0, data.regular_values[0] ?? 0)], limit, isShare);
  const regular = caughtBy(data.regular_values, limit, data.reached);
  const stopped = caughtBy(data.values, limit, data.reached) + regular;
  const caught = data.top.filter((line) =>
    data.reached ? (line.measured ?? 0) >= limit : (line.measured ?? 0) > limit,
  );
  const shown = told(caught);
  return (
    <div className="consequence">
      <h3>{t("rules.tuning")}</h3>
      {tabs}
      {data.all === 0 ? (
        <p className="quiet">{t("rules.noLines")}</p>
      ) : (
        <>
          <Histogram
            bars={spread(data.values, data.regular_values, end, isShare)}
            end={end}
            limit={limit}
            step={isShare ? 0.01 : 1}
            reached={data.reached}
            label={label}
            words={words}
            disabled={!may}
            onLimit={(value) => change({ [field.name]: isShare ? Math.round(value * 100) / 100 : value })}
          />
          <p role="status">
            <b>{words(limit)}</b>{" "}
            {data.values.length + data.regular_values.length === 0
              ? t("rules.tuningNone", { all: data.all })
              : t("rules.tuningCount", { stopped, all: data.all, regular })}
          </p>
          <ul>
            {shown.slice(0, SHOWN).map(({ line, times }) => (
              <li key={`${line.platform}${line.id}`}>
                <span className="measure">{words(line.measured ?? 0)}</span> <b>{line.name}</b> {line.text}
                {times > 1 && <span className="quiet"> · {t("rules.times", { count: times })}</span>}
              </li>
            ))}
          </ul>
          {shown.length > SHOWN && (
            <p className="quiet">{t("rules.andMore", { count: shown.length - SHOWN })}</p>
          )}
        </>
      )}
    </div>
  );
}
