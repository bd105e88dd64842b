import assert from "node:assert/strict";
import { test } from "node:test";
import { EMPTY, type LiveState, take } from "./reducer";
import type { Frame, Line } from "./types";

const line = (id: string, text = id): Line => ({
  key: `brook ${id}`,
  at: 1,
  platform: "brook",
  id,
  person: { key: "brook:1", identity: "brook:1", login: "moss", name: "Moss", level: "everyone" },
  gatekeeper: false,
  action: false,
  text,
  marks: [],
  sending: {},
});

const snapshot = (number: number, ...lines: Line[]): Frame => ({
  number,
  snapshot: { lines, parts: { pace: 3 } },
  now: 5_000_000,
});
const changes = (number: number, ...lines: Line[]): Frame => ({
  number,
  changes: lines.map((one) => ({ line: one })),
});

function after(...frames: Frame[]): LiveState | null {
  let state: LiveState | null = EMPTY;
  for (const frame of frames) {
    if (state === null) return null;
    state = take(state, frame, 1000);
  }
  return state;
}

const texts = (state: LiveState | null) => state?.lines.map((one) => one.text);

test("a snapshot is taken as it is, with the server's time", () => {
  const state = after(snapshot(7, line("a"), line("b")));
  assert.deepEqual(texts(state), ["a", "b"]);
  assert.deepEqual([state?.number, state?.offset, state?.connected], [7, 4000, true]);
});

test("frames add lines and change those that are there", () => {
  const state = after(
    snapshot(1, line("a")),
    changes(2, line("b")),
    changes(3, line("a", "a changed"), line("c")),
  );
  assert.deepEqual(texts(state), ["a changed", "b", "c"]);
});

test("a line twice in one frame stands once, as it was last", () => {
  assert.deepEqual(texts(after(snapshot(1), changes(2, line("a"), line("a", "later")))), ["later"]);
});

test("a gap in the numbers asks for a snapshot", () => {
  assert.equal(after(snapshot(1), changes(3, line("b"))), null);
  assert.equal(after(changes(1, line("a"))), null);
});

test("a frame that was taken in already changes nothing", () => {
  const state = after(snapshot(4, line("a")), changes(4, line("x")), changes(3, line("y")));
  assert.deepEqual(texts(state), ["a"]);
});

test("parts of the bench are replaced whole, the others stay", () => {
  const state = after(snapshot(1), { number: 2, changes: [{ part: "present", value: ["Bram"] }] });
  assert.deepEqual(state?.parts, { pace: 3, present: ["Bram"] });
});

test("nothing that was given is changed in place", () => {
  const before = after(snapshot(1, line("a"))) as LiveState;
  const kept = [...before.lines];
  take(before, changes(2, line("a", "new"), line("b")), 0);
  assert.deepEqual(before.lines, kept);
});

test("a very long evening does not grow without end", () => {
  let state = after(snapshot(1)) as LiveState;
  for (let number = 2; number < 60; number++) {
    const many = Array.from({ length: 100 }, (_, place) => line(`${number}-${place}`));
    state = take(state, changes(number, ...many), 0) as LiveState;
  }
  assert.equal(state.lines.length, 5000);
  assert.equal(state.lines.at(-1)?.id, "59-99");
});
