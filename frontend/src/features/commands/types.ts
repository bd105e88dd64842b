/** A command as it stands in the kit; what is left out keeps its default. */
export type Cooldown =
  | "default"
  | "none"
  | { everyone?: string | number; person?: string | number; skip_from?: string };

export type Command = {
  name: string;
  aliases?: string[];
  reply: string | string[];
  mode?: "say" | "reply" | "private";
  needs?: { level?: string; people?: string[]; never?: string[] };
  cooldown?: Cooldown;
  when?: "always" | "live" | "offline";
  on?: boolean;
  folder?: string;
  hears?: string[];
  match?: Match;
  where?: Where;
  [other: string]: unknown;
};

export type Kind = "command" | "cue";
export type Match = "words" | "exact" | "pattern";
export type Where = "text" | "login" | "name";

/** What the editor holds while one types. */
export type Draft = {
  name: string;
  reply: string[];
  aliases: string[];
  level: string;
  cooling: "default" | "none" | "own";
  everyone: string;
  person: string;
  mode: "say" | "reply" | "private";
  when: "always" | "live" | "offline";
  folder: string;
  on: boolean;
  hears: string[];
  match: Match;
  where: Where;
};

export const EMPTY: Draft = {
  name: "",
  reply: [""],
  aliases: [],
  level: "everyone",
  cooling: "default",
  everyone: "",
  person: "",
  mode: "say",
  when: "always",
  folder: "",
  on: true,
  hears: [],
  match: "words",
  where: "text",
};

export function draftOf(command: Command): Draft {
  const { cooldown = "default" } = command;
  const own = typeof cooldown === "object" ? cooldown : {};
  return {
    name: command.name,
    reply: Array.isArray(command.reply) ? command.reply : [command.reply],
    aliases: command.aliases ?? [],
    level: command.needs?.level ?? "everyone",
    cooling: typeof cooldown === "object" ? "own" : cooldown,
    everyone: String(own.everyone ?? ""),
    person: String(own.person ?? ""),
    mode: command.mode ?? "say",
    when: command.when ?? "always",
    folder: command.folder ?? "",
    on: command.on ?? true,
    hears: command.hears ?? [],
    match: command.match ?? "words",
    where: command.where ?? "text",
  };
}

/** The command that a draft means; fields that the editor does not show stay as they were. */
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
  set("aliases", draft.aliases, []);
  set("hears", draft.hears, []);
  set("match", draft.match, "words");
  set("where", draft.where, "text");
  set("needs", { ...before?.needs, level: draft.level }, { level: "everyone" });
  const skip = typeof before?.cooldown === "object" && before.cooldown.skip_from;
  const own = {
    ...(draft.everyone.trim() && { everyone: draft.everyone.trim() }),
    ...(draft.person.trim() && { person: draft.person.trim() }),
    ...(skip && { skip_from: skip }),
  };
  set("cooldown", draft.cooling === "own" ? own : draft.cooling, "default");
  set("mode", draft.mode, "say");
  set("when", draft.when, "always");
  set("folder", draft.folder.trim(), "");
  set("on", draft.on, true);
  return command;
}
