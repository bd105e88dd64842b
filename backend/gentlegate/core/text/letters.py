"""What a character may stand for, when a text is compared with a list.

Every character has its *own* folded letter. Some are also read as the plain letter they look like (UTS #39), as the
letter a digit or sign stands for, or, in phrases of more than four letters only, as the letter without its accent.
"""

from __future__ import annotations

import unicodedata
from functools import cache
from importlib.resources import files
from typing import NamedTuple

from gentlegate.core.text.folding import IGNORABLE

STANDS_FOR = {
    "0": "o", "1": "il", "2": "z", "3": "e", "4": "a", "5": "s", "6": "g", "7": "t", "8": "b", "9": "g",
    "@": "a", "$": "s", "!": "il", "|": "il", "€": "e",
}  # fmt: skip
ACCENTED = frozenset({"LATIN", "GREEK", "CYRILLIC"})
UNSPACED = frozenset({"CJK", "HIRAGANA", "KATAKANA", "KATAKANA-HIRAGANA", "THAI", "LAO", "KHMER", "MYANMAR"})
_COMMON = frozenset({"MODIFIER", "FULLWIDTH", "HALFWIDTH", "SUPERSCRIPT", "SUBSCRIPT", "FEMININE", "MASCULINE"})


class Letter(NamedTuple):
    """`own` as folded; `plain` and `loose` the letters it may also be; `script` "" where it is no letter."""

    own: str
    plain: str
    loose: str
    script: str


@cache
def _tables() -> tuple[dict[str, str], dict[str, str]]:
    looks: dict[str, str] = {}
    strokes: dict[str, str] = {}
    text = (files("gentlegate.core.text") / "data" / "confusables.txt").read_text(encoding="utf-8")
    for line in text.splitlines():
        if not line.startswith("#"):
            kind, letter, signs = line.split(" ")
            for sign in signs:
                (looks if kind == "look" else strokes)[sign] = letter
    return looks, strokes


@cache
def script(sign: str) -> str:
    """The script of a letter by its Unicode name, "" for everything else."""
    if not sign.isalpha():
        return ""
    name = unicodedata.name(unicodedata.normalize("NFKC", sign)[:1] or sign, "")
    first = name.split(" ", 1)[0]
    return "LATIN" if first in _COMMON or "LATIN" in name else first


def is_mark(sign: str) -> bool:
    """A combining mark of the kind that is put on Latin, Greek and Cyrillic letters."""
    if sign < "\u0300":
        return False
    code = ord(sign)
    return (
        code <= 0x36F
        or 0x483 <= code <= 0x489
        or 0x1AB0 <= code <= 0x1AFF
        or 0x1DC0 <= code <= 0x1DFF
        or 0x20D0 <= code <= 0x20FF
        or 0xFE20 <= code <= 0xFE2F
    )


def _bare(letter: str) -> str:
    return "".join(s for s in unicodedata.normalize("NFD", letter) if not is_mark(s))


@cache
def letters(sign: str) -> tuple[Letter, ...]:
    """What one code point is read as: none (unseen, an accent), one, or several letters (a ligature)."""
    if sign.isascii():
        return (Letter(sign.lower(), STANDS_FOR.get(sign, ""), "", "LATIN" if sign.isalpha() else ""),)
    if IGNORABLE.match(sign) or is_mark(sign):
        return ()
    looks, strokes = _tables()
    whole = unicodedata.normalize("NFKC", sign)
    for one in (sign, whole):
        if one in looks and not one.isalpha():
            return (Letter(looks[one], "", "", "LATIN"),)
    found: list[Letter] = []
    for part in whole.casefold():
        if is_mark(part):
            continue
        if part.isascii():
            found += letters(part)
            continue
        bare = _bare(part) if script(part) in ACCENTED else part
        plain = dict.fromkeys(x for key in (sign, part, part.upper()) if (x := looks.get(key)))
        if "l" in plain and sign != part:
            plain = dict.fromkeys("il")
        unaccented = strokes.get(bare, bare) if len(bare) == 1 and bare != part else ""
        loose = unaccented or strokes.get(sign) or strokes.get(part) or ""
        if loose and (look := looks.get(loose) or looks.get(loose.upper())):
            loose += look
        found.append(Letter(part, "".join(plain) or STANDS_FOR.get(part, ""), loose, script(part)))
    return tuple(found)


LANGUAGE_SCRIPTS = {
    "CYRILLIC": "ru uk bg sr mk be kk ky mn tg",
    "GREEK": "el",
    "ARABIC": "ar fa ur ps",
    "HEBREW": "he yi",
    "ARMENIAN": "hy",
    "GEORGIAN": "ka",
    "DEVANAGARI": "hi mr ne",
    "LATIN": "en de fr es pt it nl sv da no nb fi pl cs sk hu ro tr vi id ms tl hr sl et lv lt sq ca eu ga cy is",
    "CHEROKEE": "chr",
    "COPTIC": "cop",
}


def scripts_of(language: str | None) -> frozenset[str]:
    """The scripts in which a language is written, by its code such as `ru` or `el-GR`."""
    code = (language or "").lower().replace("_", "-").split("-")[0]
    return frozenset(name for name, codes in LANGUAGE_SCRIPTS.items() if code and code in codes.split())
