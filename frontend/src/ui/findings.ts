import type { TFunction } from "i18next";
import type { Exempt, Reason } from "../live/types";
import { inWords } from "./time";

const share = (value: number | null) => `${Math.round((value ?? 0) * 1000) / 10} %`;

/** A finding in a sentence: what was measured beside its limit, or the piece that was found. */
export function reasonWords(t: TFunction, reason: Reason): string {
  const { filter, measured, limit } = reason;
  const values = { measured, limit, text: reason.text };
  if (filter === "capitals") return t("why.capitals", { measured: share(measured), limit: share(limit) });
  if (filter === "symbols" && (limit ?? 0) <= 1 && (measured ?? 0) <= 1)
    return t("why.symbols", { measured: share(measured), limit: share(limit) });
  if (filter === "symbols") return t("why.marks", values);
  if (filter === "repeats" && (limit ?? 1) < 1)
    return t("why.chunk", { measured: share(measured), limit: share(limit) });
  if (filter === "repeats") return t(/\s/.test((reason.text ?? "").trim()) ? "why.word" : "why.run", values);
  if (filter === "newcomers" && reason.span === null)
    return t("why.account", { measured: inWords(t, measured ?? 0), limit: inWords(t, limit ?? 0) });
  if (filter === "newcomers") return t(measured === null ? "why.newcomers" : "why.newcomersMentions", values);
  return t(`why.${filter}`, values);
}

/** Why a finding was left alone. */
export function exemptWords(t: TFunction, exempt: Exempt): string {
  return t("why.exempt", { filter: t(`filters.${exempt.filter}`), why: t(`marks.exempt.${exempt.by}`) });
}
