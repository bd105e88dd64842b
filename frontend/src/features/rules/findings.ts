import type { Reason } from "../../live/types";

/** Values of a filter, saved or not. */
export type Values = Record<string, unknown>;

export type Tried = { outcome: string; reasons: Reason[]; exempt: { filter: string; by: string }[] };
