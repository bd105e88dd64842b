import assert from "node:assert/strict";
import { test } from "node:test";
import { type Counter, counterOf, draftOf } from "./counter";

test("a counter comes back from the form as it went in", () => {
  const counters: Counter[] = [
    { name: "mugs" },
    { name: "lost", label: "pots lost", keep: "stream" },
    {
      name: "depth",
      start: -3,
      lowest: null,
      guard: "0s",
      needs: { level: "regular", also: ["brook:@ferrous"] },
    },
    { name: "open", needs: { level: "moderator", never: ["brook:@pushy"] } },
  ];
  for (const counter of counters) assert.deepEqual(counterOf(draftOf(counter), counter), counter);
});

test("what is no number goes to the server as it was typed, to be refused there", () => {
  const made = counterOf({ ...draftOf({ name: "mugs" }), start: "two" }, null);
  assert.equal(made.start, "two");
});
