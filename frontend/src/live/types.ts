/** What the live socket sends (the server's runtime/screen). Moments are microseconds. */
export type Reason = {
  filter: string;
  measured: number | null;
  limit: number | null;
  span: [number, number] | null;
  text: string | null;
  step: string | null;
};

export type Mark = {
  effect: string;
  outcome?: string;
  seconds?: number | null;
  filter?: string | null;
  reasons?: Reason[];
  exempt?: { filter: string; by: string }[];
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
  marks: Mark[];
  sending: Record<string, string>;
};

export type PlatformState = {
  name: string;
  live: boolean;
  title: string;
  category: string;
  limit: number | null;
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
};

export type Parts = {
  stream: { live: boolean; phase: string; began: number; number: number; platforms: PlatformState[] };
  counters: Counter[];
  cooldowns: Cooldown[];
  notices: Notice[];
  channel: { name: string; prefix: string; mood: string };
  present: string[];
  settings: number;
  pace: number;
};

export type Change = { line: Line } | { part: keyof Parts; value: unknown };
export type Frame =
  | { number: number; snapshot: { lines: Line[]; parts: Partial<Parts> }; now: number }
  | { number: number; changes: Change[] };
