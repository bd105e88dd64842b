import assert from "node:assert/strict";
import { test } from "node:test";
import { draftOf, EMPTY, type Rota, rotaOf } from "./rota";

test("a rota comes back from the form as it went in", () => {
  const rotas: Rota[] = [
    { name: "Socials", notices: [{ text: "hello" }] },
    {
      name: "All of it",
      on: false,
      every: "1h30m",
      every_offline: "2h",
      chat_lines: 0,
      first_after: "0s",
      order: "shuffled",
      platforms: ["lantern"],
      alone: true,
      offline_lines: 3,
      notices: [
        { command: "shelf", on: false, platforms: ["brook"], from: "2026-12-01", until: "2026-12-24" },
      ],
    },
  ];
  for (const rota of rotas) assert.deepEqual(rotaOf(draftOf(rota), rota), rota);
});

test("an empty notice is not saved, and what the form does not know is kept", () => {
  const made = rotaOf(
    { ...EMPTY, name: " Tea ", notices: [{ text: " " }, { text: "kettle", mode: "say" }] },
    null,
  );
  assert.deepEqual(made, { name: "Tea", notices: [{ text: "kettle", mode: "say" }] });
  assert.equal(rotaOf(EMPTY, { name: "x", later: 1 }).later, 1);
});
