/** What the live socket sends (the server's runtime/screen). Moments are microseconds. */
export type Reason = {
  filter: string;
  measured: number | null;
  limit: number | null;
  span: [number, number] | null;
  text: string | null;
  step: string | null;
};

export type Exempt = { filter: string; by: string };

export type Mark = {
  effect: string;
  outcome?: string;
  seconds?: number | null;
  filter?: string | null;
  reasons?: Reason[];
  exempt?: Exempt[];
  strikes?: number;
  command?: string | null;
  why?: string;
  wait?: number | null;
  name?: string;
  label?: string;
  before?: number;
  after?: number;
  by_name?: string;
  kept?: string[];
  problem?: string;
  title?: string;
  target?: string;
  mark?: string;
  filters?: string[];
  until?: string;
  cause?: { kind: string; name: string };
};

export type Line = {
  key: string;
  at: number;
  platform: string;
  id: string;
  person: { key: string; identity: string; login: string; name: string; level: string };
  gatekeeper: boolean;
  action: boolean;
  text: string;
  /** Something that happened instead of a message: nothing can be done about it. */
  happening?: { what: string; amount: number | null; text: string | null };
  marks: Mark[];
  sending: Record<string, string>;
};

export type PlatformState = {
  name: string;
  live: boolean;
  title: string;
  category: string;
  limit: number | null;
  can: { marker: boolean; clip: boolean; raid: boolean; shoutout: boolean; ads: number[] };
  /** The ad break that runs, by its moments. */
  ad: { began: number; until: number } | null;
  lamp: string;
  note: string;
};
export type Counter = {
  name: string;
  label: string;
  value: number;
  lowest: number | null;
  by: string | null;
  at: number | null;
  undo: boolean;
};
export type Cooldown = {
  command: string;
  key: string;
  who: string | null;
  identity: string | null;
  began: number;
  until: number | null;
};
export type Notice = {
  name: string;
  on: boolean;
  due: number | null;
  lines: number;
  ready: boolean;
  posted: number | null;
  paused: boolean;
  /** Until when the spacing holds it back. */
  held: number | null;
  /** What it says next. */
  next: string;
  /** Where it would post now. */
  where: string[];
};

export type Ladder = {
  steps: { strikes: number; step: string; seconds: number | null }[];
  memory: number;
  grace: number;
};
export type Pass = { person: string; name: string; filters: string[]; until: number | null; by: string };
export type Look = {
  platform: string;
  message: string;
  at: number;
  why: string;
  by: string | null;
  filter: string | null;
  name: string | null;
  text: string | null;
};
export type Tonight = { number: number; path: string; value: unknown; how: string; by: string };
export type Bridge = {
  up: number | null;
  until: number | null;
  offered: boolean;
  why: string;
  by: string | null;
};

export type Overlap = { key: string; command: string; person: string; name: string };

export type Raid = { platform: string; name: string; due: number; by: string };

export type Parts = {
  stream: {
    live: boolean;
    phase: string;
    began: number;
    number: number;
    /** Whether the live platforms have the same category, each by its own name for it. */
    same_category: boolean;
    platforms: PlatformState[];
  };
  raid: Raid | null;
  counters: Counter[];
  cooldowns: Cooldown[];
  notices: Notice[];
  channel: { name: string; prefix: string; mood: string };
  ladder: Ladder;
  passes: Pass[];
  looks: Look[];
  overlaps: Overlap[];
  tonight: Tonight[];
  bridge: Bridge;
  present: string[];
  /** Who holds something unsaved, and where. */
  editing: { name: string; places: string[] }[];
  settings: number;
  /** Moves when somebody's rights may have changed. */
  team: number;
  /** Moves when something was done about somebody. */
  people: number;
  /** Moves with every entry of the ledger. */
  ledger: number;
  pace: number;
};

export type Change = { line: Line } | { part: keyof Parts; value: unknown };
export type Frame =
  | { number: number; snapshot: { lines: Line[]; parts: Partial<Parts> }; now: number }
  | { number: number; changes: Change[] };
