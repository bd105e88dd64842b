import { useTranslation } from "react-i18next";
import type { Schemas } from "../../api/client";
import { inWords } from "../../ui/time";

const YES_OR_NO = [
  "private",
  "threads",
  "removal",
  "restore",
  "ban",
  "offline_chat",
  "followers_only",
  "category",
  "marker",
  "clip",
  "raid",
  "shoutout",
] as const;

type Known = {
  ads: number[];
  length: number | null;
  title: number | null;
  timeout_range: [number, number];
  timeout_values: number[];
  [yesOrNo: string]: unknown;
};

/** What each platform can do, side by side. */
export function Abilities({ platforms }: { platforms: Schemas["PlatformView"][] }) {
  const { t } = useTranslation();
  const timeouts = ({ timeout_values: values, timeout_range: [from, to] }: Known) =>
    values.length
      ? values.map((seconds) => inWords(t, seconds)).join(", ")
      : t("joining.upTo", { from: inWords(t, from), to: inWords(t, to) });
  const rows: [string, (known: Known) => string][] = [
    ...YES_OR_NO.map((key): [string, (known: Known) => string] => [
      key,
      (known) => t(known[key] ? "joining.yes" : "joining.no"),
    ]),
    [
      "ads",
      ({ ads }) => (ads.length ? ads.map((seconds) => inWords(t, seconds)).join(", ") : t("joining.no")),
    ],
    ["length", ({ length }) => String(length ?? "—")],
    ["title", ({ title }) => String(title ?? "—")],
    ["timeouts", timeouts],
  ];
  return (
    <table className="plain-table abilities">
      <thead>
        <tr>
          <td />
          {platforms.map((one) => (
            <th key={one.platform}>{t(`platforms.${one.platform}`, { defaultValue: one.platform })}</th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(([key, words]) => (
          <tr key={key}>
            <th scope="row">{t(`joining.abilities.${key}`)}</th>
            {platforms.map((one) => {
              const word = words(one.abilities as Known);
              return (
                <td key={one.platform} className={word === t("joining.no") ? "quiet" : ""}>
                  {word}
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
