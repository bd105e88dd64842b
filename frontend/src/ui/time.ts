import type { TFunction } from "i18next";

/** Seconds in the words people use, with their two largest units: "1 h 43 min". */
export function inWords(t: TFunction, seconds: number): string {
  const whole = Math.max(0, Math.round(seconds));
  const amounts: [number, string][] = [
    [Math.floor(whole / 86400), "d"],
    [Math.floor((whole % 86400) / 3600), "h"],
    [Math.floor((whole % 3600) / 60), "min"],
    [whole % 60, "s"],
  ];
  const first = amounts.findIndex(([n]) => n > 0);
  if (first < 0) return t("units.s", { n: 0 });
  return amounts
    .slice(first, first + 2)
    .filter(([n]) => n > 0)
    .map(([n, unit]) => t(`units.${unit}`, { n }))
    .join(" ");
}

/** The time of day of a moment in microseconds, as the reader's clock shows it. */
export function clock(moment: number): string {
  return new Date(moment / 1000).toLocaleTimeString([], {
    hour: "2-digit",
    minute: "2-digit",
    hour12: false,
  });
}

/** Day and time of a moment in microseconds, as the reader's calendar shows it. */
export function day(moment: number): string {
  return new Date(moment / 1000).toLocaleString([], {
    day: "numeric",
    month: "short",
    hour: "2-digit",
    minute: "2-digit",
    hour12: false,
  });
}

/** The time of day of a moment today, else its day and time. */
export function when(moment: number): string {
  const today = new Date().toDateString() === new Date(moment / 1000).toDateString();
  return today ? clock(moment) : day(moment);
}

/** A day such as 2026-03-07, as the reader's calendar shows it. */
export function date(iso: string): string {
  return new Date(`${iso}T00:00`).toLocaleDateString([], { day: "numeric", month: "short", year: "numeric" });
}

const SPAN = /^(?:(\d+)d)?(?:(\d+)h)?(?:(\d+)m)?(?:(\d+(?:\.\d+)?)s)?$/;

/** A kit's duration in words. */
export function spanWords(t: TFunction, span: unknown): string {
  if (typeof span === "number") return inWords(t, span);
  const match = SPAN.exec(String(span));
  if (!match) return String(span);
  const [, d, h, m, s] = match.map((part) => Number(part ?? 0));
  return inWords(t, (d ?? 0) * 86400 + (h ?? 0) * 3600 + (m ?? 0) * 60 + (s ?? 0));
}

/** Whole seconds of a typed duration such as 5m or 1h30m; null where it is none. */
export function secondsOf(text: string): number | null {
  const match = SPAN.exec(text.trim().toLowerCase().replaceAll(" ", ""));
  if (!match || !text.trim()) return null;
  const [, d, h, m, s] = match.map((part) => Number(part ?? 0));
  const seconds = Math.round((d ?? 0) * 86400 + (h ?? 0) * 3600 + (m ?? 0) * 60 + (s ?? 0));
  return seconds > 0 ? seconds : null;
}

/** A span in microseconds as it is typed: 30s, 2m, 1h30m. */
export function spanText(microseconds: number): string {
  const whole = Math.round(microseconds / 1e6);
  const parts = [
    [Math.floor(whole / 86400), "d"],
    [Math.floor((whole % 86400) / 3600), "h"],
    [Math.floor((whole % 3600) / 60), "m"],
    [whole % 60, "s"],
  ] as const;
  return (
    parts
      .filter(([n]) => n > 0)
      .map(([n, unit]) => `${n}${unit}`)
      .join("") || "0s"
  );
}
