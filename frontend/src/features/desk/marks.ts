/** What the gate did about a line, in the margin's words. */
import type { TFunction } from "i18next";
import type { Line, Mark } from "../../live/types";
import { clock, inWords } from "../../ui/time";

export type Tone = "clay" | "straw" | "moss" | "slate" | "quiet";
export type MarginWord = { tone: Tone; word: string; more?: string };

const SET = new Set(["title", "category", "marker", "clip", "ad"]);
const TONES: Record<string, Tone> = {
  nudge: "straw",
  remove: "clay",
  timeout: "clay",
  ban: "clay",
  allow: "slate",
};

export function verdictOf(line: Line): Mark | undefined {
  return line.marks.findLast((mark) => mark.effect === "verdict");
}

export function undoneOf(line: Line): Mark | undefined {
  return line.marks.findLast((mark) => mark.effect === "undone");
}

/** What was done about a line, by the judge or by hand: what still stands, and what undid the rest. */
function deeds(line: Line): { open: Mark[]; undone: Map<Mark, Mark> } {
  const open: Mark[] = [];
  const undone = new Map<Mark, Mark>();
  for (const mark of line.marks) {
    if (mark.effect === "undone") {
      const last = open.pop();
      if (last) undone.set(last, mark);
    } else if (mark.effect === "act" || (mark.effect === "verdict" && mark.outcome !== "allow")) {
      open.push(mark);
    }
  }
  return { open, undone };
}

/** The newest deed that has not been undone. */
export function standing(line: Line): Mark | undefined {
  return deeds(line).open.at(-1);
}

/** Whether the line was taken out of chat and is still out. */
export function isRemoved(line: Line): boolean {
  if (line.sending.remove === "impossible") return false;
  const undone = undoneOf(line);
  return Boolean(standing(line) ?? (undone && !line.sending.restore ? undone : undefined));
}

export function canUndo(line: Line): boolean {
  return standing(line) !== undefined;
}

function verdictWord(t: TFunction, line: Line, mark: Mark): MarginWord {
  const outcome = mark.outcome ?? "allow";
  const tone = TONES[outcome] ?? "quiet";
  if (outcome === "allow") {
    const exempt = mark.exempt?.[0];
    const filter = exempt?.filter ?? mark.reasons?.[0]?.filter ?? "links";
    const more = exempt ? t(`marks.exempt.${exempt.by}`) : undefined;
    return { tone, word: `${t("marks.allow")} · ${t(`filters.${filter}Mark`)}`, more };
  }
  const time = mark.seconds ? inWords(t, mark.seconds) : "";
  const word = `${t(`marks.${outcome}`, { time })} · ${t(`filters.${mark.filter}Mark`)}`;
  const undone = deeds(line).undone.get(mark);
  if (undone) {
    const kept = undone.kept?.length ? ` · ${t("marks.kept")}` : "";
    return { tone: "slate", word, more: t("marks.undone", { who: undone.by_name }) + kept };
  }
  const failed = ["remove", "timeout", "ban"].some((act) =>
    ["impossible", "failed"].includes(line.sending[act] ?? ""),
  );
  const more = failed ? t("marks.notCarriedOut") : t("marks.strike", { count: mark.strikes ?? 0 });
  return { tone, word, more };
}

function actWord(t: TFunction, line: Line, mark: Mark): MarginWord {
  const time = mark.seconds ? inWords(t, mark.seconds) : "";
  const word = `${t(`marks.${mark.outcome}`, { time })} · ${t("marks.byHand", { who: mark.by_name })}`;
  const undone = deeds(line).undone.get(mark);
  return {
    tone: undone ? "slate" : "clay",
    word,
    more: undone && t("marks.undone", { who: undone.by_name }),
  };
}

function refusedWord(t: TFunction, mark: Mark): MarginWord {
  const name = mark.command ?? "";
  if (mark.why === "cooldown") {
    const key = mark.wait === null || mark.wait === undefined ? "cooldownStream" : "cooldown";
    return {
      tone: "quiet",
      word: t(`marks.refused.${key}`, { name, wait: inWords(t, Math.ceil(mark.wait ?? 0)) }),
    };
  }
  return { tone: "quiet", word: t(`marks.refused.${mark.why}`, { name }) };
}

function passWord(t: TFunction, mark: Mark): MarginWord {
  if (mark.until === "stream") return { tone: "slate", word: t("marks.passedStream"), more: mark.by_name };
  const until = new Date(String(mark.until)).getTime() * 1000;
  return { tone: "slate", word: t("marks.passed", { time: clock(until) }), more: mark.by_name };
}

/** The words in the margin beside a line, the weightiest first. */
export function marginWords(t: TFunction, line: Line): MarginWord[] {
  const words: MarginWord[] = [];
  const verdict = verdictOf(line);
  if (verdict) words.push(verdictWord(t, line, verdict));
  for (const mark of line.marks) {
    if (mark.effect === "refused") words.push(refusedWord(t, mark));
    if (mark.effect === "act") words.push(actWord(t, line, mark));
    if (mark.effect === "counter")
      words.push({
        tone: "moss",
        word: t("marks.counted", { label: mark.label ?? mark.name, before: mark.before, after: mark.after }),
      });
    if (mark.effect === "mark" && mark.mark) {
      const tone = mark.mark === "missed" ? "straw" : "slate";
      words.push({ tone, word: t(`marks.${mark.mark}`), more: mark.by_name });
    }
    if (mark.effect === "pass") words.push(passWord(t, mark));
    if (SET.has(mark.effect)) words.push({ tone: "moss", word: t(`marks.${mark.effect}`) });
    if (mark.effect === "raid" || mark.effect === "shoutout")
      words.push({ tone: "moss", word: t(`marks.${mark.effect}`, { name: mark.target }) });
    if (mark.effect === "warning")
      words.push({ tone: "straw", word: t("marks.warning", { problem: mark.problem }) });
  }
  const said = line.marks.find((mark) => mark.effect === "say" && mark.cause?.kind === "command");
  if (said && !words.length)
    words.push({ tone: "moss", word: t("marks.answered", { name: said.cause?.name }) });
  const seen = new Set<string>();
  return words.filter(({ word }) => !seen.has(word) && seen.add(word));
}

const INKS = 12;

/** One of the inks for names, steady per person across platforms. */
export function ink(identity: string): number {
  let sum = 7;
  for (const sign of identity) sum = (sum * 31 + (sign.codePointAt(0) ?? 0)) % 100003;
  return sum % INKS;
}
