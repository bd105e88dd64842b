import assert from "node:assert/strict";
import { test } from "node:test";
import { plainEntry, readEntries, sameEntry } from "./entries";

test("links part at spaces, commas and lines; phrases keep their spaces", () => {
  assert.deepEqual(readEntries("a.example, b.example\nc.example d.example", "links.allowed", "word"), [
    "a.example",
    "b.example",
    "c.example",
    "d.example",
  ]);
  assert.deepEqual(readEntries("buy followers, free mugs\nspam", "phrases.entries", "word"), [
    "buy followers",
    "free mugs",
    "spam",
  ]);
});

test("a pattern is one line and carries its mode; what comes twice stands once", () => {
  assert.deepEqual(readEntries("fr[e3]+, \\d{2,3}\n\nbuy", "phrases.entries", "pattern"), [
    { text: "fr[e3]+, \\d{2,3}", mode: "pattern" },
    { text: "buy", mode: "pattern" },
  ]);
  assert.deepEqual(readEntries("Spam, spam ,SPAM", "phrases.entries", "word"), ["Spam"]);
});

test("an entry without anything of its own is its text alone", () => {
  assert.equal(plainEntry({ text: "spam", mode: "word", disguised: true, step: null, note: " " }), "spam");
  assert.deepEqual(plainEntry({ text: "spam", disguised: false, step: "timeout", seconds: "10m" }), {
    text: "spam",
    disguised: false,
    step: "timeout",
    seconds: "10m",
  });
  assert.ok(sameEntry({ text: " Kiln.example" }, "kiln.example"));
});
