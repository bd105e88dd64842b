"""How right the judge is on sets of our own; writes docs/judge.md: `make judge`.

The ordinary lines stand in sets/ordinary.txt; the disguised ones are made here, one function for each disguise that
page 3 of the specification names. Every figure comes from the engine itself, in mood Parlour.
"""

from __future__ import annotations

import json
import random
import sys
from collections.abc import Callable, Iterator
from pathlib import Path

from gentlegate.core.effects import Verdict
from gentlegate.core.engine import Engine
from gentlegate.core.events import Message, Person, StreamChange
from gentlegate.core.moments import SECOND

ROOT = Path(__file__).resolve().parents[1]
BLOCKED = [
    "idiot", "moron", "scam", "spam", "cop", "rat", "bob", "kys", "loser", "pathetic", "nitwit", "trash talk",
    "buy followers", "free viewers", "shut up", "get lost", "casino bonus", "cheap views", "worthless", "dimwit",
]  # fmt: skip
KIT = {
    "filters": {
        "phrases": {"entries": BLOCKED},
        "links": {"allowed": ["kiln.example", "clay.example/shop"], "forbidden": ["viewers-now.test"]},
    }
}
LOOKALIKE = dict(zip("aceopxyikms", "асеорхуікмѕ", strict=True))
GREEK = dict(zip("aoivut", "αοινυτ", strict=True))
SIGNS = {"a": "4", "e": "3", "i": "1", "o": "0", "s": "5", "t": "7", "b": "8", "l": "1"}
OTHER_SIGNS = {"a": "@", "s": "$", "i": "!", "l": "!"}
SMALL = dict(zip("abcdefghijklmnoprstuvwyz", "ᴀʙᴄᴅᴇꜰɢʜɪᴊᴋʟᴍɴᴏᴘʀꜱᴛᴜᴠᴡʏᴢ", strict=True))
FRAMES = ["{}", "you {}", "what a {}!", "{} everyone", "so... {}, right?", "({})", "{}.", "oh {} oh"]
chance = random.Random(7)


def in_turn(word: str, table: dict[str, str]) -> str:
    """Some of the letters replaced, at least one where there is one."""
    places = [n for n, sign in enumerate(word) if sign in table]
    chosen = chance.sample(places, max(1, len(places) // 2)) if places else []
    return "".join(table[sign] if n in chosen else sign for n, sign in enumerate(word))


def spaced(sign: str) -> Callable[[str], str]:
    return lambda word: sign.join(word.replace(" ", ""))


def shifted(first: int) -> Callable[[str], str]:
    return lambda word: "".join(chr(first + ord(s) - 97) if s.isalpha() else s for s in word)


def with_marks(word: str) -> str:
    return "".join(s + chance.choice(["\u0301", "\u0308", ""]) if s.isalpha() else s for s in word)


def long_run(word: str) -> str:
    at = chance.randrange(len(word))
    while word[at] == " ":
        at = chance.randrange(len(word))
    return word[:at] + word[at] * chance.randint(3, 8) + word[at + 1 :]


DISGUISES: dict[str, Callable[[str], str]] = {
    "as it is listed": lambda w: w,
    "capitals": str.upper,
    "Mixed Case": lambda w: "".join(chance.choice((s.upper(), s)) for s in w),
    "full-width letters": lambda w: "".join(chr(ord(s) + 0xFEE0) if s.isalpha() else s for s in w),
    "mathematical letters": shifted(0x1D4EA),
    "circled letters": shifted(0x24D0),
    "squared letters": shifted(0x1F170),
    "small capitals": lambda w: "".join(SMALL.get(s, s) for s in w),
    "zero-width characters": lambda w: "\u200b".join(w),
    "soft hyphens": lambda w: "\u00ad".join(w),
    "combining marks": with_marks,
    "accented letters (five and more)": lambda w: in_turn(
        w, {"a": "á", "e": "ë", "i": "í", "o": "ö", "u": "ü", "s": "š"}
    ),
    "Cyrillic look-alikes": lambda w: in_turn(w, LOOKALIKE),
    "Greek look-alikes": lambda w: in_turn(w, GREEK),
    "digits for letters": lambda w: in_turn(w, SIGNS),
    "signs for letters": lambda w: in_turn(w, OTHER_SIGNS),
    "every digit and sign": lambda w: "".join(SIGNS.get(s, s) for s in w),
    "s p a c e d": spaced(" "),
    "s.p.a.c.e.d": spaced("."),
    "s-p-a-c-e-d": spaced("-"),
    "s__p__a__c__e__d": spaced("__"),
    "s*p*a*c*e*d": spaced("*"),
    "s/p/a/c/e/d": spaced("/"),
    "s\\|p\\|a\\|c\\|e\\|d": spaced("|"),
    "runs of a letter": long_run,
    "digits and spaces": lambda w: " ".join(in_turn(w, SIGNS).replace(" ", "")),
    "look-alikes and capitals": lambda w: in_turn(w, LOOKALIKE).upper(),
    "look-alikes and spaces": lambda w: " ".join(in_turn(w, LOOKALIKE).replace(" ", "")),
}
LINKS = [
    "https://bad.test/x", "http://bad.test", "bad.test", "www.bad.test", "look at bad.test/win", "BAD.TEST",
    "hxxp://bad.test/a", "hxxps://bad.com", "bad dot com", "bad DOT com", "bad(.)com", "bad (dot) com", "bad[.]com",
    "bad . com/path", "bad .com/path", "bad。com", "bad．com", "ｂａｄ.com", "b\u200bad.com", "bad.\u200bcom",
    "bücher.example", "xn--bcher-kva.example", "пример.испытание.com", "203.0.113.7/x", "203.0.113.7", "bad.test:8080",
    "user@bad.test:80/x", "http://203.0.113.7:81", "bad.co.uk", "sub.deep.bad.org", "(bad.com)", "see:bad.com", "bad.com.",
    "bad.com!", "\"bad.com\"", "bad.xyz", "bad.shop/cheap", "ftp://bad.test/file",
]  # fmt: skip
TRICKS = [
    "https://kiln.example@bad.test/", "kiln.example.bad.test", "notkiln.example", "https://kiln.example:pw@bad.test",
    "кiln.example", "kіln.example", "https://bad.test/kiln.example",
    "https://bad.test/?kiln.example", "https://bad.test#kiln.example", "clay.example/shopping", "clay.example/shop/../x",
    "clay.example/shop/%2e%2e/x", "clay.example/", "https://clay.example/Shop", "kiln.example-bad.test", "kiln-example.test",
    "http:\\\\bad.test\\kiln.example", "https:///bad.test", "bad.test/https://kiln.example", "viewers-now.test",
    "sub.viewers-now.test", "viewers-now.test:8080/x", "https://kiln.example@viewers-now.test/",
]  # fmt: skip
ALLOWED = [
    "kiln.example", "https://kiln.example/classes", "www.kiln.example", "shop.kiln.example/a?b=c", "KILN.example",
    "kiln.example:443", "clay.example/shop", "http://clay.example/shop/bowls", "clay.example/shop?x=1", "(kiln.example).",
    "clay.example/shop/./bowls", "clay.example/x/../shop",
]  # fmt: skip


class Bench:
    """The engine on lines of people that are all known already, ten seconds apart."""

    def __init__(self) -> None:
        self._engine = Engine(KIT, every_verdict=True)
        self._now = 1_800_000_000 * SECOND
        self._engine.handle(StreamChange(self._now, "brook", True))
        self._number = 0

    def verdict(self, text: str) -> Verdict:
        self._number += 1
        who = Person("brook", f"v{self._number}", f"viewer{self._number}", f"Viewer{self._number}")
        for line in ("hi", text):
            self._now += 10 * SECOND
            effects = self._engine.handle(
                Message(self._now, "brook", f"{self._number}{line[:1]}{self._now}", who, line)
            )
        return next(effect for effect in effects if isinstance(effect, Verdict))


def ordinary() -> list[str]:
    lines = (ROOT / "bench" / "sets" / "ordinary.txt").read_text(encoding="utf-8").splitlines()
    return [line for line in lines if line and not line.startswith("# Ordinary")]


def run_together(lines: list[str]) -> Iterator[str]:
    """Two sentences with the space after the full stop left out."""
    plain = [line.rstrip(".!?") for line in lines if line.isascii() and line[:1].isalpha() and " " in line]
    for _ in range(2000):
        one, two = chance.sample(plain, 2)
        yield f"{one}.{two}"


def stopped(bench: Bench, lines: list[str]) -> list[tuple[str, Verdict]]:
    return [(line, v) for line in lines if (v := bench.verdict(line)).outcome != "allow"]


def main() -> None:
    bench = Bench()
    lines = ordinary()
    together = list(run_together(lines))
    rows = [("ordinary lines, 40 languages and scripts", len(lines), stopped(bench, lines))]
    rows.append(("two sentences without the space between", len(together), stopped(bench, together)))
    rows.append(("links that the lists allow", len(ALLOWED), stopped(bench, ALLOWED)))
    text = [
        "# How right the judge is",
        "",
        "Written by `make judge`, from sets of our own (`bench/sets`, `bench/judge.py`), mood Parlour.",
        "",
    ]
    text += ["## What is to pass", "", "| set | lines | stopped |", "| --- | ---: | ---: |"]
    text += [f"| {name} | {count} | {len(found)} |" for name, count, found in rows]
    shown = [
        f"* `{line}`: {v.filter}, {json.dumps(v.reasons[0].text, ensure_ascii=False)}"
        for _, _, found in rows
        for line, v in found[:12]
    ]
    text += ["", "What was stopped of them:", "", *shown] if shown else []
    text += ["", "## What is to be caught", "", "| disguise | lines | caught |", "| --- | ---: | ---: |"]
    missed: list[str] = []
    total = caught = 0
    for name, disguise in DISGUISES.items():
        made = []
        for word in BLOCKED:
            if "five" in name and len(word.replace(" ", "")) < 5:
                continue
            made += [(frame.format(disguise(word)), word) for frame in chance.sample(FRAMES, 4)]
        hits = [line for line, _ in made if any(r.filter == "phrases" for r in bench.verdict(line).reasons)]
        missed += [f"* {name}: `{line}`" for line, _ in made if line not in hits][:3]
        total, caught = total + len(made), caught + len(hits)
        text.append(f"| {name} | {len(made)} | {len(hits)} |")
    text.append(f"| **all** | {total} | {caught} ({caught / total:.1%}) |")
    for name, links in (("links, plain and disguised", LINKS), ("tricks with allowed and forbidden hosts", TRICKS)):
        got = [line for line, _ in stopped(bench, links)]
        missed += [f"* {name}: `{line}`" for line in links if line not in got]
        text.append(f"| {name} | {len(links)} | {len(got)} |")
    text += ["", "What was missed (at most three of a kind):", "", *missed] if missed else []
    text += ["", *NOTES]
    (ROOT / "docs" / "judge.md").write_text("\n".join(text) + "\n", encoding="utf-8")
    sys.stdout.write("\n".join(text) + "\n")


NOTES = [
    "## Reading the misses",
    "",
    "At least one character of a hit is a letter (page 3), so `808` is never read as the `bob` of the list. What is stopped of the",
    "run-together sentences are mostly pairs that end in `.gg`, a country ending that is no word, or that hold three parts.",
]

if __name__ == "__main__":
    main()
