import type { Kind } from "./types";

/** The room's address of a command or cue. */
export function addressOf(kind: Kind, name: string): string {
  return `/commands/${encodeURIComponent((kind === "cue" ? "~" : "") + name)}`;
}
