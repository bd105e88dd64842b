"""Makes text/data/confusables.txt from the Unicode confusables (UTS #39) and the names of characters.

Two lists: letters that look like a plain Latin one, and letters that are a plain one with a stroke or a hook, which
many languages tell apart in short words. What NFKC and the canonical decomposition tell already is left out.
"""

from __future__ import annotations

import json
import re
import unicodedata
from collections import defaultdict
from importlib.resources import files
from pathlib import Path

TARGET = Path(__file__).resolve().parents[1] / "backend/gentlegate/core/text/data/confusables.txt"
LOOKS = re.compile(
    r"LATIN LETTER SMALL CAPITAL ([A-Z])|LATIN SMALL LETTER (?:TURNED|REVERSED|OPEN|SCRIPT|BLACKLETTER) ([A-Z])"
    r"|(?:NEGATIVE )?(?:SQUARED|CIRCLED) LATIN CAPITAL LETTER ([A-Z])|PARENTHESIZED LATIN (?:SMALL|CAPITAL) LETTER ([A-Z])"
    r"|REGIONAL INDICATOR SYMBOL LETTER ([A-Z])"
)
STROKED = re.compile(r"LATIN (?:SMALL|CAPITAL) LETTER ([A-Z]) WITH .*")


def base(text: str) -> str:
    """Without combining marks."""
    return "".join(sign for sign in unicodedata.normalize("NFD", text) if not unicodedata.combining(sign))


def main() -> None:
    data = json.loads((files("confusable_homoglyphs") / "confusables.json").read_text(encoding="utf-8"))
    looks: dict[str, set[str]] = defaultdict(set)
    stroked: dict[str, set[str]] = defaultdict(set)
    for code in range(0x80, 0x30000):
        sign = chr(code)
        name = unicodedata.name(sign, "")
        if not name or unicodedata.category(sign)[0] == "M":
            continue
        plain = unicodedata.normalize("NFKC", sign).casefold()
        if base(plain) != plain and base(plain).isascii() and len(base(plain)) == 1:
            continue
        if plain.isascii() and plain.isalpha():
            continue
        if match := STROKED.fullmatch(name):
            stroked[match[1].lower()].add(sign)
            continue
        if match := LOOKS.fullmatch(name):
            looks[next(group for group in match.groups() if group).lower()].add(sign)
        for entry in data.get(sign, ()):
            letter = base(entry["c"]).casefold()
            if len(letter) == 1 and letter.isascii() and letter.isalpha():
                looks["i" if letter == "l" and "IOTA" in name else letter].add(sign)
    lines = [
        "# Letters that look like a plain one: Unicode UTS #39 and character names. Made by scripts/confusables.py."
    ]
    lines += [f"look {letter} {''.join(sorted(signs))}" for letter, signs in sorted(looks.items())]
    lines += [f"stroke {letter} {''.join(sorted(signs))}" for letter, signs in sorted(stroked.items())]
    TARGET.write_text("\n".join(lines) + "\n", encoding="utf-8")


if __name__ == "__main__":
    main()
