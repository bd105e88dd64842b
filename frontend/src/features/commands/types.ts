/** A command as it stands in the kit; what is left out keeps its default. */
export type Cooldown =
  | "default"
  | "none"
  | { everyone?: string | number; person?: string | number; skip_from?: string };

export type Needs = { level?: string; people?: string[]; never?: string[] };
export type CountStep = { counter: string; by?: number; set?: number };

export type Command = {
  name: string;
  aliases?: string[];
  reply: string | string[];
  choose?: Choose;
  mode?: "say" | "reply" | "private";
  private_only?: boolean;
  needs?: Needs;
  cooldown?: Cooldown;
  when?: "always" | "live" | "offline";
  platforms?: string[];
  answer_on?: "same" | "all";
  on?: boolean;
  folder?: string;
  counts?: CountStep[];
  refusals?: { level?: string; cooldown?: string };
  note?: string;
  hears?: string[];
  match?: Match;
  where?: Where;
  [other: string]: unknown;
};

export type Kind = "command" | "cue";
export type Choose = "in turn" | "shuffled" | "first";
export type Match = "words" | "exact" | "pattern";
export type Where = "text" | "login" | "name";

/** Who may use something and how often; what commands, cues and built-ins have in common. */
export type Leave = {
  level: string;
  people: string[];
  never: string[];
  cooling: "default" | "none" | "own";
  everyone: string;
  person: string;
  skipFrom: string;
};

/** What the editor holds while one types. `rotas` is null for what is on none, as cues are. */
export type Draft = Leave & {
  name: string;
  reply: string[];
  choose: Choose;
  aliases: string[];
  mode: "say" | "reply" | "private";
  privateOnly: boolean;
  when: "always" | "live" | "offline";
  platforms: string[];
  answerOn: "same" | "all";
  folder: string;
  on: boolean;
  counts: { counter: string; how: "by" | "set"; amount: string }[];
  refuseLevel: string;
  refuseCooldown: string;
  note: string;
  hears: string[];
  match: Match;
  where: Where;
  rotas: string[];
};

export const NO_LEAVE: Leave = {
  level: "everyone",
  people: [],
  never: [],
  cooling: "default",
  everyone: "",
  person: "",
  skipFrom: "moderator",
};

export const EMPTY: Draft = {
  ...NO_LEAVE,
  name: "",
  reply: [""],
  choose: "in turn",
  aliases: [],
  mode: "say",
  privateOnly: false,
  when: "always",
  platforms: [],
  answerOn: "same",
  folder: "",
  on: true,
  counts: [],
  refuseLevel: "",
  refuseCooldown: "",
  note: "",
  hears: [],
  match: "words",
  where: "text",
  rotas: [],
};

export function leaveOf(needs: Needs | undefined, cooldown: Cooldown = "default", usual = "everyone"): Leave {
  const own = typeof cooldown === "object" ? cooldown : {};
  return {
    level: needs?.level ?? usual,
    people: needs?.people ?? [],
    never: needs?.never ?? [],
    cooling: typeof cooldown === "object" ? "own" : cooldown,
    everyone: String(own.everyone ?? ""),
    person: String(own.person ?? ""),
    skipFrom: own.skip_from ?? "moderator",
  };
}

export function needsOf(leave: Leave): Needs {
  return {
    level: leave.level,
    ...(leave.people.length > 0 && { people: leave.people }),
    ...(leave.never.length > 0 && { never: leave.never }),
  };
}

export function cooldownOf(leave: Leave): Cooldown {
  if (leave.cooling !== "own") return leave.cooling;
  return {
    ...(leave.everyone.trim() && { everyone: leave.everyone.trim() }),
    ...(leave.person.trim() && { person: leave.person.trim() }),
    ...(leave.skipFrom !== "moderator" && { skip_from: leave.skipFrom }),
  };
}

export function draftOf(command: Command, rotas: string[] = []): Draft {
  return {
    ...leaveOf(command.needs, command.cooldown),
    name: command.name,
    reply: Array.isArray(command.reply) ? command.reply : [command.reply],
    choose: command.choose ?? "in turn",
    aliases: command.aliases ?? [],
    mode: command.mode ?? "say",
    privateOnly: command.private_only ?? false,
    when: command.when ?? "always",
    platforms: command.platforms ?? [],
    answerOn: command.answer_on ?? "same",
    folder: command.folder ?? "",
    on: command.on ?? true,
    counts: (command.counts ?? []).map((step) => ({
      counter: step.counter,
      how: step.set === undefined ? "by" : "set",
      amount: String(step.set ?? step.by ?? 1),
    })),
    refuseLevel: command.refusals?.level ?? "",
    refuseCooldown: command.refusals?.cooldown ?? "",
    note: command.note ?? "",
    hears: command.hears ?? [],
    match: command.match ?? "words",
    where: command.where ?? "text",
    rotas,
  };
}

/** The command that a draft means: what is as usual is left out, what the editor does not know stays as it was. */
export function commandOf(draft: Draft, before: Command | null): Command {
  const replies = draft.reply.filter((text, index) => text.trim() || index === 0);
  const command: Command = {
    ...(before ?? {}),
    name: draft.name.trim(),
    reply: replies.length === 1 ? (replies[0] ?? "") : replies,
  };
  const set = (key: keyof Command, value: unknown, usual: unknown) => {
    if (JSON.stringify(value) === JSON.stringify(usual)) delete command[key];
    else command[key] = value;
  };
  const refusals = {
    ...(draft.refuseLevel.trim() && { level: draft.refuseLevel.trim() }),
    ...(draft.refuseCooldown.trim() && { cooldown: draft.refuseCooldown.trim() }),
  };
  set("choose", draft.choose, "in turn");
  set("aliases", draft.aliases, []);
  set("hears", draft.hears, []);
  set("match", draft.match, "words");
  set("where", draft.where, "text");
  set("needs", needsOf(draft), { level: "everyone" });
  set("cooldown", cooldownOf(draft), "default");
  set("mode", draft.mode, "say");
  set("private_only", draft.privateOnly, false);
  set("when", draft.when, "always");
  set("platforms", draft.platforms, []);
  set("answer_on", draft.answerOn, "same");
  set("folder", draft.folder.trim(), "");
  set("on", draft.on, true);
  set("counts", draft.counts.map(stepOf), []);
  set("refusals", refusals, {});
  set("note", draft.note.trim(), "");
  return command;
}

function stepOf({ counter, how, amount }: Draft["counts"][number]): CountStep {
  const number = Number(amount.trim().replace(/^\+/, ""));
  // What is no number is kept as typed, to be refused by name.
  const value = (amount.trim() && Number.isInteger(number) ? number : amount) as number;
  return how === "set" ? { counter, set: value } : { counter, by: value };
}
