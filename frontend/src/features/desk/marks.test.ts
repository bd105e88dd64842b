import assert from "node:assert/strict";
import { test } from "node:test";
import type { TFunction } from "i18next";
import type { Line, Mark } from "../../live/types";
import { canUndo, ink, isRemoved, marginWords, standing } from "./marks";

const t = ((key: string, values: Record<string, unknown> = {}) =>
  [key, ...Object.values(values).filter((value) => value !== "")].join(" ")) as unknown as TFunction;

const line = (marks: Mark[], sending: Record<string, string> = {}): Line => ({
  key: "brook a",
  at: 1,
  platform: "brook",
  id: "a",
  person: { key: "brook:1", identity: "brook:1", login: "moss", name: "Moss", level: "everyone" },
  gatekeeper: false,
  action: false,
  text: "a",
  marks,
  sending,
});

const nudged: Mark = {
  effect: "verdict",
  outcome: "nudge",
  filter: "links",
  strikes: 1,
  reasons: [],
  exempt: [],
};
const allowed: Mark = {
  ...nudged,
  outcome: "allow",
  filter: null,
  exempt: [{ filter: "links", by: "allowed" }],
};
const byHand: Mark = { effect: "act", outcome: "timeout", seconds: 60, by_name: "Bram" };
const undone: Mark = { effect: "undone", by_name: "Wren", kept: [] };

test("what stands is the newest deed that nobody undid", () => {
  assert.equal(standing(line([])), undefined);
  assert.equal(standing(line([allowed])), undefined);
  assert.equal(standing(line([nudged])), nudged);
  assert.equal(standing(line([nudged, byHand])), byHand);
  assert.equal(standing(line([nudged, byHand, undone])), nudged);
  assert.equal(standing(line([nudged, byHand, undone, undone])), undefined);
  assert.equal(standing(line([nudged, undone, byHand])), byHand);
});

test("a line is out of chat until it was put back", () => {
  assert.ok(!isRemoved(line([allowed])));
  assert.ok(isRemoved(line([nudged], { remove: "sent" })));
  assert.ok(!isRemoved(line([nudged], { remove: "impossible" })));
  assert.ok(isRemoved(line([nudged, undone], { remove: "sent" })), "the platform cannot put it back");
  assert.ok(!isRemoved(line([nudged, undone], { remove: "sent", restore: "sent" })));
});

test("only what stands can be undone", () => {
  assert.ok(canUndo(line([nudged])));
  assert.ok(!canUndo(line([nudged, undone])));
  assert.ok(!canUndo(line([allowed])));
});

test("the margin says what was done, by whom, and who undid it", () => {
  const words = (...marks: Mark[]) => marginWords(t, line(marks)).map(({ word, more }) => [word, more]);
  assert.deepEqual(words(nudged), [["marks.nudge · filters.linksMark", "marks.strike 1"]]);
  assert.deepEqual(words(nudged, undone), [["marks.nudge · filters.linksMark", "marks.undone Wren"]]);
  assert.deepEqual(words(allowed), [["marks.allow · filters.linksMark", "marks.exempt.allowed"]]);
  assert.deepEqual(words(byHand), [["marks.timeout units.min 1 · marks.byHand Bram", undefined]]);
});

test("what could not be carried out is said", () => {
  const [word] = marginWords(t, line([nudged], { remove: "impossible" }));
  assert.equal(word?.more, "marks.notCarriedOut");
});

test("refusals name the command and why", () => {
  const refused = (why: string, wait: number | null = null): Mark => ({
    effect: "refused",
    command: "kiln",
    why,
    wait,
  });
  const word = (mark: Mark) => marginWords(t, line([mark]))[0]?.word;
  assert.equal(word(refused("level")), "marks.refused.level kiln");
  assert.equal(word(refused("cooldown", 4.2)), "marks.refused.cooldown kiln units.s 5");
  assert.equal(word(refused("cooldown")), "marks.refused.cooldownStream kiln units.s 0");
});

test("an answer is only said where nothing weightier happened", () => {
  const said: Mark = { effect: "say", cause: { kind: "command", name: "lost" } };
  const counted: Mark = { effect: "counter", name: "lost", label: "pots lost", before: 0, after: 1 };
  assert.deepEqual(
    marginWords(t, line([said])).map(({ word }) => word),
    ["marks.answered lost"],
  );
  assert.deepEqual(
    marginWords(t, line([counted, said])).map(({ word }) => word),
    ["marks.counted pots lost 0 1"],
  );
});

test("a name's ink is steady and one of twelve", () => {
  assert.equal(ink("brook:u-moss"), ink("brook:u-moss"));
  for (let number = 0; number < 200; number++)
    assert.ok(ink(`brook:${number}`) >= 0 && ink(`brook:${number}`) < 12);
});
