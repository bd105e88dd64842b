import assert from "node:assert/strict";
import { test } from "node:test";
import type { Reason } from "../live/types";
import i18next from "../words";
import { reasonWords } from "./findings";

const words = (reason: Partial<Reason>) =>
  reasonWords(i18next.t, {
    filter: "links",
    measured: null,
    limit: null,
    span: [0, 1],
    text: null,
    step: null,
    ...reason,
  });

test("every filter's finding is a sentence with its measure and its limit", () => {
  const filters: Partial<Reason>[] = [
    { filter: "capitals", measured: 0.925, limit: 0.8 },
    { filter: "symbols", measured: 0.7, limit: 0.6 },
    { filter: "symbols", measured: 9, limit: 3 },
    { filter: "emotes", measured: 19, limit: 18 },
    { filter: "length", measured: 401, limit: 400 },
    { filter: "repeats", measured: 30, limit: 25, text: "aaaa" },
    { filter: "repeats", measured: 8, limit: 7, text: "no no" },
    { filter: "repeats", measured: 0.9, limit: 0.6, text: "haha" },
    { filter: "resends", measured: 4, limit: 4, span: null },
    { filter: "pace", measured: 16, limit: 15, span: null },
    { filter: "links", text: "bad.test" },
    { filter: "phrases", text: "SP4M" },
    { filter: "names", text: "spam", span: null },
    { filter: "mentions", measured: 7, limit: 6 },
    { filter: "actions" },
    { filter: "false_notice" },
    { filter: "copycats", measured: 5, limit: 5, span: null },
    { filter: "newcomers", text: "bad.test" },
    { filter: "newcomers", measured: 2, limit: 2 },
    { filter: "newcomers", measured: 3600, limit: 86400, span: null },
  ];
  const said = filters.map(words);
  assert.equal(new Set(said).size, said.length);
  for (const sentence of said) {
    assert.ok(sentence.endsWith("."), sentence);
    assert.ok(!/why\.|\{\{|null|NaN/.test(sentence), sentence);
  }
  assert.equal(said[0], "92.5 % of the letters are capitals; the limit is 80 %.");
  assert.equal(said.at(-1), "The account is 1 h old; it has to be 1 d.");
});
