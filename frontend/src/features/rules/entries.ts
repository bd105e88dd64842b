/** Entries of a filter's list: a string, or an object with more to it. */
export type Entry =
  | string
  | {
      text: string;
      mode?: string;
      disguised?: boolean;
      step?: string | null;
      seconds?: number | string;
      note?: string;
      lang?: string | null;
    };

export const entryText = (entry: Entry): string => (typeof entry === "string" ? entry : entry.text);

export const sameEntry = (one: Entry, other: Entry): boolean =>
  entryText(one).trim().toLowerCase() === entryText(other).trim().toLowerCase();

/** What was typed or pasted as entries. Links part at spaces too; a pattern is one line. */
export function readEntries(text: string, where: string, mode: string): Entry[] {
  const links = where.startsWith("links.");
  const pattern = where === "phrases.entries" && mode === "pattern";
  const parts = text.split(links ? /[\s,;]+/ : pattern ? /\n+/ : /[\n,;]+/).map((part) => part.trim());
  const found: Entry[] = [];
  for (const part of parts) {
    if (!part || found.some((one) => sameEntry(one, part))) continue;
    found.push(where === "phrases.entries" && mode !== "word" ? { text: part, mode } : part);
  }
  return found;
}

/** An entry without what is only the default. */
export function plainEntry(entry: Exclude<Entry, string>): Entry {
  const { text, mode, disguised, step, seconds, note, lang } = entry;
  const kept: Exclude<Entry, string> = { text };
  if (mode && mode !== "word") kept.mode = mode;
  if (disguised === false) kept.disguised = false;
  if (step) kept.step = step;
  if (step === "timeout" && seconds !== undefined && seconds !== "") kept.seconds = seconds;
  if (note?.trim()) kept.note = note.trim();
  if (lang?.trim()) kept.lang = lang.trim();
  return Object.keys(kept).length === 1 ? text : kept;
}
