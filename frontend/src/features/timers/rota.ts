/** A rota's settings between the kit and the form. */
import type { TFunction } from "i18next";
import { spanWords } from "../../ui/time";

export type Notice = {
  text?: string;
  command?: string;
  on?: boolean;
  platforms?: string[] | null;
  from?: string | null;
  until?: string | null;
  [other: string]: unknown;
};

export type Rota = {
  name: string;
  on?: boolean;
  every?: string;
  every_offline?: string | null;
  chat_lines?: number;
  first_after?: string | null;
  order?: "in turn" | "shuffled";
  platforms?: string[] | null;
  alone?: boolean;
  offline_lines?: number;
  notices?: Notice[];
  [other: string]: unknown;
};

export type RotaDraft = {
  name: string;
  on: boolean;
  every: string;
  lines: string;
  first: string;
  away: string;
  awayLines: string;
  order: "in turn" | "shuffled";
  platforms: string[];
  alone: boolean;
  notices: Notice[];
};

export const EMPTY: RotaDraft = {
  name: "",
  on: true,
  every: "20m",
  lines: "5",
  first: "",
  away: "",
  awayLines: "0",
  order: "in turn",
  platforms: [],
  alone: false,
  notices: [{ text: "" }],
};

export function draftOf(rota: Rota): RotaDraft {
  return {
    name: rota.name,
    on: rota.on ?? true,
    every: String(rota.every ?? "20m"),
    lines: String(rota.chat_lines ?? 5),
    first: rota.first_after == null ? "" : String(rota.first_after),
    away: rota.every_offline == null ? "" : String(rota.every_offline),
    awayLines: String(rota.offline_lines ?? 0),
    order: rota.order ?? "in turn",
    platforms: rota.platforms ?? [],
    alone: rota.alone ?? false,
    notices: rota.notices ?? [],
  };
}

const number = (text: string) => (/^\d+$/.test(text.trim()) ? Number(text) : (text as unknown as number));

/** The rota as the kit has it; what is usual is left out, and what the form does not show is kept. */
export function rotaOf(draft: RotaDraft, before: Rota | null): Rota {
  const {
    on,
    every,
    every_offline,
    chat_lines,
    first_after,
    order,
    platforms,
    alone,
    offline_lines,
    notices,
    ...kept
  } = before ?? { name: "" };
  return {
    ...kept,
    name: draft.name.trim(),
    ...(!draft.on && { on: false }),
    ...(draft.every.trim() !== "20m" && { every: draft.every.trim() }),
    ...(draft.away.trim() && { every_offline: draft.away.trim() }),
    ...(draft.lines.trim() !== "5" && { chat_lines: number(draft.lines.trim() || "0") }),
    ...(draft.first.trim() && { first_after: draft.first.trim() }),
    ...(draft.order !== "in turn" && { order: draft.order }),
    ...(draft.platforms.length && { platforms: draft.platforms }),
    ...(draft.alone && { alone: true }),
    ...(draft.awayLines.trim() !== "0" && { offline_lines: number(draft.awayLines.trim() || "0") }),
    notices: draft.notices.filter((notice) => notice.command !== undefined || notice.text?.trim()),
  };
}

/** What the rhythm does, in a sentence. */
export function rhythmWords(t: TFunction, draft: RotaDraft): string {
  const every = spanWords(t, draft.every);
  const first = draft.first.trim() ? spanWords(t, draft.first) : every;
  const lines = Number(draft.lines) || 0;
  const parts = [
    lines ? t("timers.says.everyLines", { every, count: lines }) : t("timers.says.every", { every }),
    t("timers.says.first", { first }),
    draft.away.trim()
      ? t("timers.says.away", { away: spanWords(t, draft.away) })
      : t("timers.says.silentAway"),
  ];
  return parts.join(" ");
}

/** A notice in a few words, for lists and pictures. */
export function noticeWords(notice: Notice | undefined, prefix: string): string {
  if (!notice) return "";
  return notice.command === undefined ? (notice.text ?? "") : `${prefix}${notice.command}`;
}
