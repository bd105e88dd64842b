/** A counter's settings between the kit and the form. */
export type Counter = {
  name: string;
  label?: string;
  start?: number;
  keep?: "always" | "stream";
  lowest?: number | null;
  guard?: string;
  needs?: { level?: string; [other: string]: unknown };
};

export type CounterDraft = {
  name: string;
  label: string;
  start: string;
  keep: "always" | "stream";
  /** Empty for none. */
  lowest: string;
  guard: string;
  level: string;
};

export const EMPTY: CounterDraft = {
  name: "",
  label: "",
  start: "0",
  keep: "always",
  lowest: "0",
  guard: "5s",
  level: "moderator",
};

export function draftOf(counter: Counter): CounterDraft {
  return {
    name: counter.name,
    label: counter.label ?? "",
    start: String(counter.start ?? 0),
    keep: counter.keep ?? "always",
    lowest: counter.lowest === null ? "" : String(counter.lowest ?? 0),
    guard: counter.guard ?? "5s",
    level: counter.needs?.level ?? "moderator",
  };
}

/** The counter as the kit has it; what is usual is left out, and what the form does not show is kept. */
export function counterOf(draft: CounterDraft, before: Counter | null): Counter {
  const { label, start, keep, lowest, guard, needs, ...kept } = before ?? { name: "" };
  const number = (text: string) => (/^-?\d+$/.test(text.trim()) ? Number(text) : (text as unknown as number));
  const asked = { ...needs, level: draft.level };
  const sameNeeds = draft.level === "moderator" && Object.keys(needs ?? {}).every((key) => key === "level");
  return {
    ...kept,
    name: draft.name.trim(),
    ...(draft.label.trim() && { label: draft.label.trim() }),
    ...(draft.start.trim() !== "0" && { start: number(draft.start) }),
    ...(draft.keep !== "always" && { keep: draft.keep }),
    ...(draft.lowest.trim() !== "0" && { lowest: draft.lowest.trim() === "" ? null : number(draft.lowest) }),
    ...(draft.guard.trim() !== "5s" && { guard: draft.guard.trim() || "0s" }),
    ...(!sameNeeds && { needs: asked }),
  };
}
