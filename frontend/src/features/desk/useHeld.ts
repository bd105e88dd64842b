import { useRef } from "react";
import type { Line } from "../../live/types";

/** The lines to show: all of them, or, while held, those up to the newest one when the holding began. */
export function useHeld(lines: Line[], held: boolean): { shown: Line[]; waiting: number } {
  const until = useRef<string | null>(null);
  if (!held) {
    until.current = null;
    return { shown: lines, waiting: 0 };
  }
  if (until.current === null) until.current = lines.at(-1)?.key ?? null;
  const place = lines.findLastIndex((line) => line.key === until.current);
  if (place < 0) return { shown: lines, waiting: 0 };
  return { shown: lines.slice(0, place + 1), waiting: lines.length - place - 1 };
}
