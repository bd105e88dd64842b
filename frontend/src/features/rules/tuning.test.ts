import assert from "node:assert/strict";
import { test } from "node:test";
import { axisEnd, caughtBy, spread, told } from "./tuning";

test("a limit that is reached catches what is equal, one that is passed does not", () => {
  const measures = [9, 5, 5, 3, 1];
  assert.equal(caughtBy(measures, 5, true), 3);
  assert.equal(caughtBy(measures, 5, false), 1);
  assert.equal(caughtBy(measures, 0, true), 5);
  assert.equal(caughtBy(measures, 10, true), 0);
  assert.equal(caughtBy([], 1, true), 0);
});

test("the axis has room for the limit and for the largest measure", () => {
  assert.equal(axisEnd([0.4], 0.8, true), 1);
  assert.equal(axisEnd([3], 4, false), 10);
  assert.equal(axisEnd([200], 18, false), 210);
  assert.equal(axisEnd([], 400, false), 600);
});

test("every measure stands in exactly one bar", () => {
  for (const [others, regulars, end, isShare] of [
    [[1, 0.8, 0.81, 0.02], [0.5], 1, true],
    [[40, 18, 19, 3, 1], [7, 7], 42, false],
    [[999], [], 1050, false],
  ] as const) {
    const bars = spread(others, regulars, end, isShare);
    const sum = (who: "others" | "regulars") => bars.reduce((before, bar) => before + bar[who], 0);
    assert.equal(sum("others"), others.length);
    assert.equal(sum("regulars"), regulars.length);
    assert.ok(bars.length <= 40);
    assert.ok((bars.at(-1)?.to ?? 0) >= end - 1e-9);
  }
});

test("lines with the same text are told once", () => {
  const lines = [{ text: "a" }, { text: "b" }, { text: "a" }];
  assert.deepEqual(
    told(lines).map(({ line, times }) => [line.text, times]),
    [
      ["a", 2],
      ["b", 1],
    ],
  );
});
