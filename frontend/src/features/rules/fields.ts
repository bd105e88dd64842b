import type { TFunction } from "i18next";
import type { Schemas } from "../../api/client";
import { inWords, spanText } from "../../ui/time";

/** Values of a filter, saved or not. */
export type Values = Record<string, unknown>;
export type FilterView = Schemas["FilterView"];
export type Kind = "share" | "count" | "span" | "flag";
export type Field = { name: string; kind: Kind; tuned?: boolean };

const share = (tuned = false): Field => ({ name: "share", kind: "share", tuned });
const count = (name: string, tuned = false): Field => ({ name, kind: "count", tuned });
const span = (name: string): Field => ({ name, kind: "span" });

/** What each filter can be set to, the limit that matters most first. */
export const FIELDS: Record<string, Field[]> = {
  capitals: [share(true), count("letters")],
  symbols: [share(true), count("least"), count("marks", true)],
  emotes: [count("most", true)],
  length: [count("most", true)],
  repeats: [count("run", true), count("words", true)],
  resends: [count("copies", true), span("window")],
  pace: [count("messages", true), span("window")],
  links: [{ name: "disguised", kind: "flag" }],
  mentions: [count("most", true)],
  copycats: [count("people", true), span("window"), { name: "alike", kind: "share" }, count("least")],
  newcomers: [span("account")],
};

/** A value in the words people use. */
export function valueWords(t: TFunction, kind: Kind, value: unknown): string {
  if (kind === "share") return `${Math.round(Number(value) * 100)} %`;
  if (kind === "span") return inWords(t, microseconds(value) / 1e6);
  if (kind === "flag") return t(`rules.onOff.${Boolean(value)}`);
  return String(value);
}

/** A span as it stands in a field: what the server says in microseconds, or what was typed. */
export const spanField = (value: unknown): string =>
  typeof value === "number" ? spanText(value) : String(value ?? "");

const UNITS: Record<string, number> = { d: 86400e6, h: 3600e6, m: 60e6, s: 1e6 };

export function microseconds(value: unknown): number {
  if (typeof value === "number") return value;
  let sum = 0;
  for (const [, n, unit] of String(value).matchAll(/(\d+(?:\.\d+)?)([dhms])/g))
    sum += Number(n) * (UNITS[unit ?? "s"] ?? 0);
  return sum;
}
