import assert from "node:assert/strict";
import { test } from "node:test";
import i18next from "../words";
import { aboutWords, changeWords, placeWords } from "./entries";

const t = i18next.t;

test("a place in the settings is said as its form calls it", () => {
  const places = {
    "commands.kiln": "command kiln",
    "filters.length.most": "filter Length, at most",
    "filters.links.exempt_from": "filter Links, who is left alone",
    "channel.mood": "mood",
    "channel.stream_gap": "Channel: gap that still counts as one stream",
    "people.regulars": "Regulars",
    "quotes.7": "quote 7",
    "card.counter:mugs": "stage card counter:mugs",
    "nowhere.at.all": "nowhere.at.all",
  };
  for (const [place, words] of Object.entries(places)) assert.equal(placeWords(t, place), words);
});

test("what an entry is about, and what changed", () => {
  const entries = [
    [{ what: "title", about: "brook", before: "One", after: "Two" }, "Brook", "One → Two"],
    [{ what: "title", about: "plaza", before: null, after: "Two" }, "Plaza", "Two"],
    [
      { what: "tonight", about: "filters.emotes.on", before: true, after: false },
      "filter Emotes, on",
      "on → off",
    ],
    [{ what: "setting", about: "counters.mugs", before: null, after: 3 }, "counter mugs", "— → 3"],
    [
      { what: "permission", about: "raid", before: "lead", after: "moderator" },
      "Arm raids",
      "lead → moderator",
    ],
    [{ what: "timeout", about: "x", before: null, after: 600 }, "x", "10 min"],
    [{ what: "pass", about: "x", before: ["links"], after: "stream" }, "x", "Links, this stream"],
    [{ what: "mark", about: "x", before: null, after: "wrong" }, "x", "settled as wrong"],
    [{ what: "note", about: null, before: null, after: 4 }, "", ""],
  ] as const;
  for (const [entry, about, changed] of entries) {
    assert.equal(aboutWords(t, entry as never), about);
    assert.equal(changeWords(t, entry as never), changed);
  }
});
