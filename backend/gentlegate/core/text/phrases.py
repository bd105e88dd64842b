"""Looking for listed words and phrases, through their disguises.

Every phrase has a *skeleton*: one character a letter, in which whatever may stand for something else is written
one way. One Aho-Corasick automaton over all skeletons finds where a phrase may stand, at a cost that does not grow
with the list; only there the phrase is compared letter by letter, and the rules are asked that keep disguise-reading
from inventing words. A second automaton, over skeletons with runs written once, is asked only where a text has runs
of three or more, or wide gaps; and both are asked again about single letters that stand apart, joined.
"""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache

from ahocorasick_rs import AhoCorasick

from gentlegate.core.text.letters import STANDS_FOR, UNSPACED, Letter, scripts_of
from gentlegate.core.text.spelling import (
    LOOK,
    OWN,
    Row,
    Table,
    Unit,
    ascii_skeleton,
    has_spaced_letters,
    joined,
    look,
    one_sign,
    own,
    row_of,
    skeleton,
)

LONG = 5
"""Phrases of this many letters and more are found without their accents as well."""
MOST_HITS = 20
_TRIPLE = re.compile(r"(.)\1\1|  ", re.DOTALL)
_RUN = re.compile(r"(.)\1+", re.DOTALL)
_SENTINELS = [letter * 3 for letter in "abcdefghijklmnopqrstuvwxyz"] + ["  "]
"""What tells, in the same pass over an ASCII text, that it has runs of three or wide gaps."""
_GAP_SIGNS = frozenset(".-_*/")


@dataclass(frozen=True, slots=True)
class Hit:
    """Which phrase stands where, in code points of the original text; `disguised` if not plainly written."""

    phrase: int
    start: int
    end: int
    disguised: bool


Groups = tuple[tuple[Letter | None, int], ...]


@dataclass(frozen=True, slots=True)
class Phrase:
    """One entry made ready: its skeletons at once, its letters when they are first compared."""

    index: int
    text: str
    shapes: frozenset[str]
    whole: bool
    disguised: bool
    script: str
    other_scripts: frozenset[str]
    letters: int

    @property
    def row(self) -> Row:
        return _written_out(self.text, self.disguised)[0]

    @property
    def groups(self) -> Groups:
        """The letters with how often each stands in a row; None is a gap."""
        return _written_out(self.text, self.disguised)[1]


@lru_cache(maxsize=50_000)
def read_phrase(
    index: int, text: str, *, whole: bool = True, disguised: bool = True, lang: str | None = None
) -> Phrase:
    """Make an entry ready. ValueError where nothing is left of it."""
    text = text.strip()
    others = scripts_of(lang) if lang else frozenset()
    if text.isascii() and not has_spaced_letters(text):
        if not any(sign.isalnum() or sign in STANDS_FOR for sign in text) and not text.strip(" .-_*/"):
            raise ValueError(NOTHING_LEFT)
        letters = sum(map(str.isalpha, text))
        return Phrase(
            index,
            text,
            frozenset({ascii_skeleton(text)}),
            whole,
            disguised,
            "LATIN" if letters else "",
            others,
            letters,
        )
    text = unicodedata.normalize("NFC", text)
    row, groups = _written_out(text, disguised)
    if all(letter is None for letter, _ in groups):
        raise ValueError(NOTHING_LEFT)
    scripts = {unit.letter.script for unit in row if unit.letter.script}
    raw = row_of(text)
    raw = (joined(raw) or raw) if disguised else raw
    return Phrase(
        index,
        text,
        frozenset({skeleton(raw, own), skeleton(raw, look)}),
        whole,
        disguised,
        next(iter(scripts)) if len(scripts) == 1 else "",
        others,
        sum(1 for unit in row if unit.letter.script),
    )


NOTHING_LEFT = (
    "nothing is left of this entry to look for; it needs a letter, a digit or a sign that is no separator"
)


@lru_cache(maxsize=5_000)
def _written_out(text: str, disguised: bool) -> tuple[Row, Groups]:
    row = row_of(text)
    if disguised:
        row = joined(row) or row
    if not any(unit.letter.script for unit in row):
        row = [unit._replace(letter=unit.letter._replace(plain="")) for unit in row]
    groups: list[tuple[Letter | None, int]] = []
    for unit in row:
        letter = None if unit.letter.own.isspace() or unit.letter.own in _GAP_SIGNS else unit.letter
        if groups and groups[-1][0] == letter:
            groups[-1] = (letter, groups[-1][1] + 1)
        else:
            groups.append((letter, 1))
    return row, tuple(groups)


class Phrases:
    """A list of phrases, ready to be looked for; made once per change of settings."""

    def __init__(self, phrases: list[Phrase]) -> None:
        exact: dict[str, list[Phrase]] = {}
        short: dict[str, list[Phrase]] = {}
        for phrase in phrases:
            shapes = phrase.shapes | {shape.replace(" ", "") for shape in phrase.shapes}
            for shape in shapes:
                exact.setdefault(shape, []).append(phrase)
            for shape in {_RUN.sub(r"\1", shape) for shape in shapes}:
                short.setdefault(shape, []).append(phrase)
        self._any = bool(phrases)
        self._exact = list(exact.values())
        self._short = list(short.values())
        self._whole = [all(phrase.whole for phrase in same) for same in self._exact]
        self._spelt = [_spelt(same) for same in self._exact]
        self._first = AhoCorasick([*exact, *_SENTINELS], store_patterns=False)
        self._second = AhoCorasick(list(short), store_patterns=False)

    def find(self, text: str) -> list[Hit]:
        """Every place where a phrase stands, at most one for each phrase and place, in order."""
        if not self._any:
            return []
        plain = text.isascii()
        shape = ascii_skeleton(text) if plain else text.translate(OWN)
        look_shape = shape if plain else text.translate(LOOK)
        candidates = self._first.find_matches_as_indexes(shape, overlapping=True)
        runs = False
        if plain and candidates:
            runs = any(number >= len(self._exact) for number, _, _ in candidates)
            candidates = [one for one in candidates if self._may_stand(text, *one)]
        apart = has_spaced_letters(text if plain else text.translate(_SIGNS))
        if not plain:
            if look_shape != shape:
                candidates += self._first.find_matches_as_indexes(look_shape, overlapping=True)
            runs = _TRIPLE.search(shape) is not None or _TRIPLE.search(look_shape) is not None
        if not (candidates or runs or apart):
            return []
        if plain and not (candidates or apart or self._short_hits(shape)):
            return []
        row = row_of(text)
        hits: dict[tuple[int, int], Hit] = {}
        self._look(text, row, {shape, look_shape}, runs, hits)
        if apart and (pieces := joined(row)):
            self._look(text, pieces, {skeleton(pieces, own), skeleton(pieces, look)}, True, hits)
        return sorted(hits.values(), key=lambda hit: (hit.start, hit.phrase))[:MOST_HITS]

    def _short_hits(self, shape: str) -> list[tuple[int, int, int]]:
        """Where phrases may stand once every run is written once; places are in the shortened shape."""
        return self._second.find_matches_as_indexes(_RUN.sub(r"\1", shape), overlapping=True)

    def _may_stand(self, text: str, number: int, start: int, end: int) -> bool:
        """Whether a glance at an ASCII text's edges leaves room for one of the phrases of this shape."""
        if number >= len(self._exact):
            return False
        piece = text[start:end]
        spelt = self._spelt[number]
        if spelt is not None and piece.islower() and piece.replace(" ", "").isalpha() and piece not in spelt:
            return False
        if not self._whole[number]:
            return True
        return not (start and text[start - 1].isalnum()) and not (end < len(text) and text[end].isalnum())

    def _look(self, text: str, row: Row, shapes: set[str], runs: bool, hits: dict[tuple[int, int], Hit]) -> None:
        for shape in shapes:
            for number, start, _ in self._first.find_matches_as_indexes(shape, overlapping=True):
                if number >= len(self._exact):
                    continue
                self._compare(text, row, self._exact[number], start, hits)
            if runs:
                places = [match.start() for match in re.finditer(r"(.)\1*", shape, re.DOTALL)]
                for number, start, _ in self._short_hits(shape):
                    self._compare(text, row, self._short[number], places[start], hits)

    @staticmethod
    def _compare(text: str, row: Row, phrases: list[Phrase], start: int, hits: dict[tuple[int, int], Hit]) -> None:
        for phrase in phrases:
            if len(hits) > 4 * MOST_HITS:
                return
            if (phrase.index, row[start].start) in hits:
                continue
            if (hit := _Comparison(text, row, phrase).at(start)) is not None:
                hits[phrase.index, hit.start] = hit


def _spelt(phrases: list[Phrase]) -> frozenset[str] | None:
    """The phrases as small ASCII letters spell them; None where one holds anything else."""
    found = {phrase.text.lower() for phrase in phrases}
    plain = all(text.isascii() and text.replace(" ", "").isalpha() for text in found)
    return frozenset(found) | {text.replace(" ", "") for text in found} if plain else None


_SIGNS = Table(lambda _, letter: one_sign(letter))


class _Comparison:
    """One phrase compared letter by letter at one place of a row."""

    def __init__(self, text: str, row: Row, phrase: Phrase) -> None:
        self._text = text
        self._row = row
        self._phrase = phrase
        self._long = phrase.letters >= LONG

    def at(self, start: int) -> Hit | None:
        if not self._edge_before(start):
            return None
        ends = [end for end in set(self._ends(0, start)) if self._edge_after(end) and self._fair(start, end)]
        if not ends:
            return None
        end = max(ends)
        plain = all(unit.letter.own == "" or unit.run == 0 for unit in self._row[start:end])
        written = "".join(unit.letter.own for unit in self._row[start:end])
        listed = "".join(unit.letter.own for unit in self._phrase.row)
        return Hit(
            self._phrase.index, self._row[start].start, self._row[end - 1].end, not plain or written != listed
        )

    def _ends(self, group: int, place: int) -> Iterator[int]:
        """Where the phrase may end, its groups from this one on being matched from `place` on."""
        groups, row = self._phrase.groups, self._row
        if group == len(groups):
            yield place
            return
        letter, count = groups[group]
        if letter is None:
            for after in self._gaps(place):
                yield from self._ends(group + 1, after)
            return
        run = place
        while run < len(row) and self._agree(letter, row[run]):
            run += 1
        there = run - place
        if there >= count:
            yield from self._ends(group + 1, place + count)
        if there >= 3 and there != count and self._phrase.disguised:
            yield from self._ends(group + 1, run)

    def _gaps(self, place: int) -> Iterator[int]:
        row, after = self._row, place
        while after < len(row) and row[after].letter.own.isspace():
            after += 1
        if after == place and after < len(row) and (sign := row[after].letter.own) in _GAP_SIGNS:
            while after < len(row) and row[after].letter.own == sign:
                after += 1
        if after > place:
            yield after
        elif 0 < place < len(row) and row[place].run and row[place].run == row[place - 1].run:
            yield place

    def _agree(self, listed: Letter, unit: Unit) -> bool:
        there = unit.letter
        if listed.own in (there.own, unit.composed):
            return True
        if not self._phrase.disguised:
            return False
        if there.script and there.script == listed.script != "LATIN":
            return self._long and (there.loose[:1] or there.own) == (listed.loose[:1] or listed.own)
        mine = listed.own + listed.plain + (listed.loose if self._long else "")
        yours = there.own + there.plain + (there.loose if self._long else "")
        return any(sign in mine for sign in yours)

    def _wordlike(self, place: int) -> bool:
        sign = self._text[self._row[place].start]
        return sign.isalnum() or unicodedata.category(sign)[0] == "M"

    def _edge_before(self, start: int) -> bool:
        row = self._row
        if not self._phrase.whole or start == 0:
            return True
        if row[start].run and row[start - 1].run == row[start].run:
            return start == 1 or row[start - 2].run != row[start].run
        return row[start].letter.script in UNSPACED or not self._wordlike(start - 1)

    def _edge_after(self, end: int) -> bool:
        row = self._row
        if not self._phrase.whole or end >= len(row):
            return True
        if row[end].run and row[end].run == row[end - 1].run:
            return False
        if row[end].letter.own in "@$€" and row[end - 1].end == row[end].start:
            return False
        return row[end - 1].letter.script in UNSPACED or not self._wordlike(end)

    def _fair(self, start: int, end: int) -> bool:
        """Whether the reading invents nothing: letters enough, a word's own script kept, a final ! a mere sign."""
        row, phrase = self._row, self._phrase
        units = row[start:end]
        if not phrase.disguised:
            return True
        plainly = [unit.letter.own for unit in units] == [unit.letter.own for unit in phrase.row]
        if plainly:
            return True
        if not any(unit.letter.script for unit in units):
            return False
        if units[-1].letter.own in "!|" and (end == len(row) or not self._wordlike(end)):
            head = units
            while head and head[-1].letter.own in "!|":
                head = head[:-1]
            if not any(unit.letter.plain and not unit.letter.script for unit in head):
                return False
        return all(self._script_fits(word) for word in self._words(start, end))

    def _words(self, start: int, end: int) -> Iterator[Row]:
        """The whole words of the text that the hit touches."""
        row = self._row

        def together(place: int) -> bool:
            return self._wordlike(place) and (
                row[place].run == row[place - 1].run or not (row[place].run or row[place - 1].run)
            )

        first = start
        while first > 0 and together(first) and self._wordlike(first - 1):
            first -= 1
        last = end
        while last < len(row) and together(last):
            last += 1
        word: Row = []
        for unit in row[first:last]:
            if unit.letter.script:
                word.append(unit)
            elif word and unit.letter.own.isspace():
                yield word
                word = []
        if word:
            yield word

    def _script_fits(self, word: Row) -> bool:
        scripts = {unit.letter.script for unit in word}
        if len(scripts) != 1 or not self._phrase.script:
            return True
        (one,) = scripts
        return one == self._phrase.script or one in self._phrase.other_scripts
