import assert from "node:assert/strict";
import { test } from "node:test";
import { differences, mixOf } from "./differences";

test("only what differs, field by field, as people read it", () => {
  const left = { name: "kiln", reply: ["hot", "warm"], needs: { level: "vip" }, on: true };
  const right = { name: "kiln", reply: "hot", needs: { level: "vip" }, folder: "Clay", on: true };
  assert.deepEqual(differences(left, right), [
    { field: "reply", left: "hot\nwarm", right: "hot" },
    { field: "folder", left: "", right: "Clay" },
  ]);
});

test("single values and nothing at all", () => {
  assert.deepEqual(differences("!", "?"), [{ field: "", left: "!", right: "?" }]);
  assert.deepEqual(differences(null, { a: 1 }), [{ field: "a", left: "", right: "1" }]);
  assert.deepEqual(differences(undefined, null), []);
});

test("a mix is mine with their fields where those were chosen", () => {
  const mine = { name: "kiln", reply: "mine", note: "kept" };
  const theirs = { name: "kiln", reply: "theirs", folder: "Shop" };
  assert.deepEqual(mixOf(mine, theirs, []), mine);
  assert.deepEqual(mixOf(mine, theirs, ["reply", "folder"]), {
    name: "kiln",
    reply: "theirs",
    note: "kept",
    folder: "Shop",
  });
  assert.deepEqual(mixOf(mine, theirs, ["note"]), { name: "kiln", reply: "mine" });
});
