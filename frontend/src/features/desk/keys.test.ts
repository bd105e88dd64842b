import assert from "node:assert/strict";
import { test } from "node:test";
import { choose, readKeys, USUAL_KEYS } from "./keys";

test("another letter for an act, in small letters", () => {
  assert.deepEqual(choose(USUAL_KEYS, "remove", "D"), { keys: { ...USUAL_KEYS, remove: "d" } });
  assert.deepEqual(choose(USUAL_KEYS, "remove", "x"), { keys: USUAL_KEYS });
});

test("a key does one thing, and only letters are keys", () => {
  assert.deepEqual(choose(USUAL_KEYS, "remove", "u"), { problem: "taken", by: "undo" });
  for (const key of ["1", "/", "Enter", " ", "ä"])
    assert.deepEqual(choose(USUAL_KEYS, "undo", key), { problem: "letter" });
});

test("what was kept is read as far as it makes sense", () => {
  assert.deepEqual(readKeys(null), USUAL_KEYS);
  assert.deepEqual(readKeys("not json"), USUAL_KEYS);
  const kept = JSON.stringify({ remove: "d", undo: "d", fly: "f", pass: 4, why: "w" });
  assert.deepEqual(readKeys(kept), { ...USUAL_KEYS, remove: "d", why: "w" });
});
