import assert from "node:assert/strict";
import { test } from "node:test";
import type { TFunction } from "i18next";
import { inWords, secondsOf, spanText, spanWords } from "./time";

const t = ((key: string, values: { n: number }) =>
  `${values.n} ${key.replace("units.", "")}`) as unknown as TFunction;

test("a span is said with its two largest units", () => {
  for (const [seconds, words] of [
    [0, "0 s"],
    [-5, "0 s"],
    [45, "45 s"],
    [60, "1 min"],
    [61, "1 min 1 s"],
    [6180, "1 h 43 min"],
    [3605, "1 h"],
    [90061, "1 d 1 h"],
  ] as const)
    assert.equal(inWords(t, seconds), words);
});

test("a kit's duration reads like any other", () => {
  assert.equal(spanWords(t, "1h30m"), "1 h 30 min");
  assert.equal(spanWords(t, "45s"), "45 s");
  assert.equal(spanWords(t, 90), "1 min 30 s");
  assert.equal(spanWords(t, "stream"), "stream");
});

test("typed durations become whole seconds, and spans in microseconds what one types", () => {
  assert.equal(secondsOf("5m"), 300);
  assert.equal(secondsOf(" 1h 30M "), 5400);
  for (const bad of ["", "0s", "5", "m", "ever"]) assert.equal(secondsOf(bad), null);
  assert.equal(spanText(90e6), "1m30s");
  assert.equal(spanText(86_400e6), "1d");
  assert.equal(spanText(0), "0s");
});
