import assert from "node:assert/strict";
import { test } from "node:test";
import i18next from "../../words";
import { countWords, wholeWords } from "./sentences";
import { EMPTY } from "./types";

const t = i18next.t;
const USUAL = { everyone: "5s", person: "0s" };

test("a command's whole leave in one sentence", () => {
  for (const [draft, sentence] of [
    [{}, "Everyone, once in 5 s all together, on every platform."],
    [
      { level: "regular", cooling: "own", person: "stream" },
      "Regulars and above, once per stream each, on every platform.",
    ],
    [
      { level: "vip", people: ["brook:@sam"], never: ["brook:@bo"], cooling: "none", when: "live" },
      "VIPs and above, and brook:@sam; never brook:@bo, as often as they like, on every platform, while live.",
    ],
    [
      { cooling: "own", everyone: "90s", person: "1h", platforms: ["brook"] },
      "Everyone, once in 1 min 30 s all together, once in 1 h each, on Brook.",
    ],
  ] as const)
    assert.equal(wholeWords(t, { ...EMPTY, ...(draft as object) }, USUAL), sentence);
});

test("what it counts", () => {
  assert.equal(countWords(t, []), "Nothing");
  assert.equal(
    countWords(t, [
      { counter: "lost", how: "by", amount: "1" },
      { counter: "mugs", how: "by", amount: "-2" },
      { counter: "boils", how: "set", amount: "0" },
    ]),
    "lost +1, mugs -2, boils = 0",
  );
});
