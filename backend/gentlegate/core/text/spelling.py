"""A text as a row of units, each of which may be several letters; the form in which phrases are looked for.

Places are indexes into the original text. In the *joined* row, letters that stand alone with the same sign between
them (`s p a m`, `s..p..a..m`) follow each other directly.
"""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Callable
from typing import NamedTuple

from gentlegate.core.text.letters import ACCENTED, STANDS_FOR, Letter, is_mark, letters

_ALONE = r"[^\W_]|[@$!€]"
SPACED = re.compile(rf"(?<![^\W_])(?:{_ALONE})([ .\-_*/|])\1*(?:{_ALONE})(?:\1+(?:{_ALONE}))+(?![^\W_])")

_ALONE_BETWEEN = re.compile(r"[ .\-_*/|][^ .\-_*/|][ .\-_*/|]+[^ .\-_*/|](?![^\W_])")


def has_spaced_letters(text: str) -> bool:
    """Whether single letters stand in a row with the same sign between them."""
    return _ALONE_BETWEEN.search(text) is not None and SPACED.search(text) is not None


class Unit(NamedTuple):
    """One letter or sign of the text: what it may be, and where it stands (`end` takes its accents in)."""

    letter: Letter
    start: int
    end: int
    composed: str = ""
    run: int = 0
    """In the joined row: the number of the run of single letters that it belongs to, 0 for none."""


Row = list[Unit]


def row_of(text: str) -> Row:
    """The units of a text, in order; unseen characters and accents make none of their own."""
    row: Row = []
    for place, sign in enumerate(text):
        if is_mark(sign):
            if row and row[-1].letter.script in ACCENTED:
                last = row[-1]
                composed = unicodedata.normalize("NFC", (last.composed or last.letter.own) + sign)
                row[-1] = last._replace(end=place + 1, composed=composed if len(composed) == 1 else last.composed)
            continue
        for letter in letters(sign):
            row.append(Unit(_looked_at(letter, text, place), place, place + 1))
    return row


def _looked_at(letter: Letter, text: str, place: int) -> Letter:
    """A capital I among small letters may be an l, and a small l before a capital an i."""
    if letter.own not in "il" or letter.plain:
        return letter
    around = text[max(0, place - 1) : place] + text[place + 1 : place + 2]
    if text[place] == "I" and any(sign.islower() for sign in around):
        return letter._replace(plain="l")
    if text[place] == "l" and text[place + 1 : place + 2].isupper():
        return letter._replace(plain="i")
    return letter


def joined(row: Row) -> Row | None:
    """The row with single letters joined, or None where none stand alone in a row."""
    plain = "".join(one_sign(unit.letter) for unit in row)
    found: Row = []
    end = 0
    for number, match in enumerate(SPACED.finditer(plain), start=1):
        found += row[end : match.start()]
        sign = match[1]
        found += [unit._replace(run=number) for unit in row[match.start() : match.end()] if unit.letter.own != sign]
        end = match.end()
    return [*found, *row[end:]] if end else None


def skeleton(row: Row, choose: Callable[[Letter], str]) -> str:
    """The row as one character a unit; what may part words is a space."""
    return "".join(_spaced(choose(unit.letter)) for unit in row)


def _spaced(sign: str) -> str:
    return " " if sign in " .-_*/\n\t\r" or sign.isspace() else "i" if sign == "l" else sign


def own(letter: Letter) -> str:
    """The letter itself without its accent; digits and signs as the letter they stand for."""
    if letter.script:
        return letter.loose[:1] or letter.own
    return letter.plain[:1] or letter.own


def look(letter: Letter) -> str:
    """The plain letter that it looks like."""
    return letter.plain[:1] or letter.loose[-1:] or letter.own


class Table(dict[int, str]):
    """A table for `str.translate` that fills itself from what each code point is read as."""

    def __init__(self, write: Callable[[str, Letter], str]) -> None:
        self._write = write

    def __missing__(self, code: int) -> str:
        sign = chr(code)
        made = self[code] = "".join(self._write(sign, letter) for letter in letters(sign))
        return made


def one_sign(letter: Letter) -> str:
    """The letter as written, as one character whatever it folds to."""
    return letter.own if len(letter.own) == 1 else "x"


OWN = Table(lambda _, letter: _spaced(own(letter)))
LOOK = Table(lambda _, letter: _spaced(look(letter)))
_OWN_ASCII = bytes(ord(OWN[code]) for code in range(128)) + bytes(128)


def ascii_skeleton(text: str) -> str:
    """The skeleton of an ASCII text, in which every letter is its own and only look."""
    return text.encode().translate(_OWN_ASCII).decode()


_STANDS_FOR = str.maketrans({sign: stands[0] for sign, stands in STANDS_FOR.items() if sign in "0134578@$"})
_SIGNS = re.compile(r"[0134578@$]")


def fold(text: str) -> str:
    """The text as it is compared with other texts: unseen characters, accents, case and look-alikes undone."""
    if text.isascii():
        return text.lower()
    if _MIXED.search(text.translate(_SCRIPTS)) is None:
        return text.translate(_FOLDED)
    return fold_with_places(text)[0]


def fold_with_places(text: str) -> tuple[str, list[int] | None]:
    """The same, and for each of its characters where it came from; None where nothing moved."""
    if text.isascii():
        return text.lower(), None
    row = row_of(text)
    pieces: list[str] = []
    word: Row = []
    for unit in row:
        if unit.letter.script or text[unit.start].isalnum() or unit.letter.own.isalnum():
            word.append(unit)
            continue
        pieces += _plainly(word)
        word = []
        pieces.append(unit.letter.own)
    pieces += _plainly(word)
    return "".join(pieces), [unit.start for unit, piece in zip(row, pieces, strict=True) for _ in piece]


def fold_fully(text: str) -> str:
    """Folded, with spaces as one and the digits and signs in words as the letters they stand for first."""
    return fold_words(fold(text).split())


def fold_words(words: list[str]) -> str:
    """The same, of a folded text's words."""
    folded = " ".join(words)
    if not _SIGNS.search(folded):
        return folded
    return " ".join(word.translate(_STANDS_FOR) if any(map(str.isalpha, word)) else word for word in words)


def _plainly(word: Row) -> list[str]:
    """The letters of a word: those of another script as what they look like, unless the whole word is of it."""
    mixed = len({unit.letter.script for unit in word if unit.letter.script}) > 1
    return [(look if mixed and unit.letter.script else _bare)(unit.letter) for unit in word]


def _bare(letter: Letter) -> str:
    """A letter without its accent; digits and signs as they are."""
    return own(letter) if letter.script else letter.own


_script_signs: dict[str, str] = {}


def _script_sign(sign: str, letter: Letter) -> str:
    """One private sign for each script, nothing for digits, a space for what parts words."""
    if letter.script:
        return _script_signs.setdefault(letter.script, chr(0xF0000 + len(_script_signs)))
    return "" if sign.isalnum() or letter.own.isalnum() else " "


_MIXED = re.compile(r"([^ ])(?!\1)[^ ]")
"""Two letters of different scripts in one word."""
_SCRIPTS = Table(_script_sign)
_FOLDED = Table(lambda _, letter: _bare(letter))
