import assert from "node:assert/strict";
import { test } from "node:test";
import { type Command, commandOf, draftOf, EMPTY } from "./types";

const COMMANDS: Command[] = [
  { name: "kiln", reply: "hot" },
  { name: "glaze", reply: ["one", "two"], aliases: ["dip"], folder: "Studio", on: false },
  { name: "tea", reply: "poured", cooldown: "none", mode: "reply", when: "live" },
  {
    name: "lost",
    reply: "gone",
    cooldown: { everyone: "30s", person: "stream", skip_from: "vip" },
    counts: [{ counter: "lost", by: 1 }],
  },
  {
    name: "whole",
    reply: ["a", "b"],
    choose: "shuffled",
    private_only: true,
    platforms: ["brook"],
    answer_on: "all",
    refusals: { cooldown: "in {{ wait }}" },
    needs: { level: "lead", people: ["brook:@sam"], never: ["brook:@bo"] },
    counts: [{ counter: "mugs", set: 0 }],
  },
  { name: "vip", reply: "x", needs: { level: "vip", people: ["brook:@sam"] }, note: "by Marlo" },
];

test("a command that was only looked at is saved as it was", () => {
  for (const command of COMMANDS) assert.deepEqual(commandOf(draftOf(command), command), command);
});

test("two fields make a command of two fields", () => {
  const draft = { ...EMPTY, name: " apron ", reply: ["a friend sewed it"] };
  assert.deepEqual(commandOf(draft, null), { name: "apron", reply: "a friend sewed it" });
});

test("what goes back to the usual leaves the kit", () => {
  const [, glaze] = COMMANDS as [Command, Command];
  const draft = { ...draftOf(glaze), aliases: [], folder: "", on: true };
  assert.deepEqual(commandOf(draft, glaze), { name: "glaze", reply: ["one", "two"] });
});

test("empty further replies are dropped, an empty first one is kept to be refused", () => {
  assert.equal(commandOf({ ...EMPTY, name: "a", reply: ["x", " "] }, null).reply, "x");
  assert.equal(commandOf({ ...EMPTY, name: "a", reply: [""] }, null).reply, "");
});

test("fields that the editor does not show stay", () => {
  const lost = COMMANDS[3] as Command;
  const saved = commandOf({ ...draftOf(lost), everyone: "1m" }, lost);
  assert.deepEqual(saved.counts, lost.counts);
  assert.deepEqual(saved.cooldown, { everyone: "1m", person: "stream", skip_from: "vip" });
});

test("a cue keeps what it hears, and only what differs from the usual", () => {
  const cue = { name: "tea", hears: ["tea time"], reply: "x", where: "login" as const };
  assert.deepEqual(commandOf(draftOf(cue), cue), cue);
  assert.deepEqual(commandOf({ ...draftOf(cue), where: "text", match: "exact" }, cue), {
    name: "tea",
    hears: ["tea time"],
    reply: "x",
    match: "exact",
  });
});

test("a number that is none is kept as it was typed, to be refused by name", () => {
  const draft = {
    ...EMPTY,
    name: "a",
    reply: ["x"],
    counts: [{ counter: "c", how: "by" as const, amount: "two" }],
  };
  assert.deepEqual(commandOf(draft, null).counts, [{ counter: "c", by: "two" }]);
});
