import assert from "node:assert/strict";
import { test } from "node:test";
import { bySection, firstPicks, type Item, withNeeds } from "./kit";

const item = (place: string, more: Partial<Item> = {}): Item => ({
  place,
  state: "new",
  ours: null,
  theirs: {},
  needs: [],
  clashes: [],
  ...more,
});

const ITEMS = [
  item("commands.lost", { needs: ["counters.LOST"] }),
  item("commands.kiln", { state: "differs" }),
  item("commands.dip", { clashes: [{ name: "dip", owner: "an alias of glaze" }] }),
  item("counters.lost"),
  item("rotas.Socials", { needs: ["commands.lost"] }),
  item("people.leads"),
];

test("what is new and clashes with nothing is ticked, the broadcaster's for the broadcaster", () => {
  assert.deepEqual([...firstPicks(ITEMS, false)], ["commands.lost", "counters.lost", "rotas.Socials"]);
  assert.equal(firstPicks(ITEMS, true).has("people.leads"), true);
});

test("what a pick mentions comes along, also at second hand", () => {
  const picks = withNeeds(new Set(["rotas.Socials"]), ITEMS);
  assert.deepEqual([...picks].sort(), ["commands.lost", "counters.lost", "rotas.Socials"]);
});

test("items stand under their sections", () => {
  const found = bySection(ITEMS, (one) => one.place);
  assert.deepEqual(
    found.map(([section, items]) => [section, items.length]),
    [
      ["commands", 3],
      ["counters", 1],
      ["rotas", 1],
      ["people", 1],
    ],
  );
});
