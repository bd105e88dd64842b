/** Frames into state. Plain functions: no socket, no React. */
import type { Frame, Line, Parts } from "./types";

const KEPT = 5000;

export type LiveState = {
  connected: boolean;
  /** The number of the last frame taken in; null until a snapshot came. */
  number: number | null;
  /** Server time minus ours, in milliseconds. */
  offset: number;
  lines: Line[];
  parts: Partial<Parts>;
};

export const EMPTY: LiveState = { connected: false, number: null, offset: 0, lines: [], parts: {} };

/** The next state, or null where a frame is missing in between and a snapshot must be asked for. */
export function take(state: LiveState, frame: Frame, ownNow: number): LiveState | null {
  if ("snapshot" in frame) {
    const { lines, parts } = frame.snapshot;
    return { connected: true, number: frame.number, offset: frame.now / 1000 - ownNow, lines, parts };
  }
  if (state.number === null || frame.number > state.number + 1) return null;
  if (frame.number <= state.number) return state;
  let lines = state.lines;
  let parts = state.parts;
  const places = new Map<string, number>();
  for (const change of frame.changes) {
    if ("part" in change) {
      parts = { ...parts, [change.part]: change.value };
      continue;
    }
    if (lines === state.lines) lines = [...lines];
    const place = places.get(change.line.key) ?? lastPlace(lines, change.line.key);
    if (place >= 0) lines[place] = change.line;
    else lines.push(change.line);
    places.set(change.line.key, place >= 0 ? place : lines.length - 1);
  }
  if (lines.length > KEPT) lines = lines.slice(-KEPT);
  return { ...state, number: frame.number, lines, parts };
}

function lastPlace(lines: Line[], key: string): number {
  for (let place = lines.length - 1; place >= 0 && place > lines.length - 500; place--)
    if (lines[place]?.key === key) return place;
  return -1;
}
