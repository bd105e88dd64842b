"""`repeats`: a run of one character, one word over and over, or a chunk that fills the line."""

from __future__ import annotations

import re
from collections.abc import Iterator
from itertools import pairwise
from operator import eq

from gentlegate.core.filters.base import Finding, barely
from gentlegate.core.kit.filters import Repeats
from gentlegate.core.text.reading import Reading
from gentlegate.core.text.spelling import fold

LONGEST_CHUNK, CHUNKS, FILLED, AT_LEAST = 40, 4, 0.6, 40
_ASCII_PUNCTUATION = b"!\"#$%&'()*+,-./:;<=>?@[\\]^_`{|}~"
_PUNCTUATION = re.compile(r"[^\w]|_")
_WORD = re.compile(r"[^\s\0]+|\0+")


class RepeatsFilter:
    key = "repeats"
    on_plain = True

    def __init__(self, settings: Repeats) -> None:
        self.settings = settings
        self._run = settings.run or 25
        self._words = settings.words or 7
        self._long_run = re.compile(rf"([^\0])\1{{{min(self._run, 50_000) - 1},}}", re.DOTALL)

    def look(self, reading: Reading) -> list[Finding]:
        text = reading.lower
        found: list[Finding] = []
        if len(text) >= self._run and (not reading.ascii or self._may_run(text)):
            found += self._one_character(reading)
        if self._may_repeat_words(reading):
            found += self._one_word(reading)
        if not found and len(text) >= AT_LEAST and (not reading.plain or _comes_again(text)):
            found += self._one_chunk(reading)
        return found

    def _may_run(self, text: str) -> bool:
        """A run covers two neighbours among signs picked at half its length, and all between."""
        step = self._run // 2
        some = text[::step]
        if not any(map(eq, some, some[1:])):
            return False
        return any(
            one == two and text[n * step : (n + 1) * step].count(one) == step
            for n, (one, two) in enumerate(pairwise(some))
        )

    def _may_repeat_words(self, reading: Reading) -> bool:
        words = reading.words
        if len(words) < self._words:
            return False
        if not reading.ascii:
            return True
        if len(words) - len(set(words)) < self._words - 1 and "".join(words).isalnum():
            return False
        bare = reading.lower.encode().translate(None, _ASCII_PUNCTUATION).split()
        return bool(sum(map(eq, bare, bare[1:])) >= self._words - 1)

    def _one_character(self, reading: Reading) -> Iterator[Finding]:
        if reading.ascii:
            match = self._long_run.search(reading.measured.lower())
            if match is not None:
                yield Finding(self.key, match.span(), len(match[0]), self._run)
            return
        place = start = run = best = 0
        span, last = (0, 0), ""
        for cluster in reading.measured_clusters:
            same = cluster == last and cluster != "\0"
            run, start = (run + 1, start) if same else (1, place)
            place += len(cluster)
            last = cluster
            if run > best and cluster != "\0":
                best, span = run, (start, place)
        if best >= self._run:
            yield Finding(self.key, span, best, self._run)

    def _one_word(self, reading: Reading) -> Iterator[Finding]:
        best, count, last, begun = 0, 0, "", 0
        span = (0, 0)
        for match in _WORD.finditer(reading.measured):
            if match[0][0] == "\0":
                last = ""
                continue
            word = _PUNCTUATION.sub("", fold(match[0]))
            if not word:
                continue
            count, begun = (count + 1, begun) if word == last else (1, match.start())
            last = word
            if count > best:
                best, span = count, (begun, match.end())
        if best >= self._words:
            yield Finding(self.key, span, best, self._words)

    def _one_chunk(self, reading: Reading) -> Iterator[Finding]:
        """A stretch with a period of 2 to 40 clusters that holds the line's middle, as one of over 60 % must."""
        signs = reading.measured_signs
        if len(signs) < AT_LEAST:
            return
        middle = len(signs) // 2
        periods = _distances(signs, middle)
        if not periods:
            return
        size = len(signs) - signs.count("\0")
        if size < AT_LEAST:
            return
        for period in periods:
            start, end = _stretch(signs, middle, period)
            length = end - start
            if length >= CHUNKS * period and length > FILLED * size and len(set(signs[start:end])) > 1:
                share = length / size
                span = reading.span_of_signs(start, end)
                yield Finding(self.key, span, round(share, 4), FILLED, unsure=barely(share, FILLED))
                return


def _comes_again(signs: str) -> bool:
    """Whether the eight signs in the middle come again within reach; the first look, at a plain text."""
    start = len(signs) // 2 - 4
    around = signs[start : start + 8]
    if signs.find(around, start + 2, start + LONGEST_CHUNK + 8) >= 0:
        return True
    return signs.rfind(around, max(0, start - LONGEST_CHUNK), start + 6) >= 0


def _distances(signs: str, middle: int) -> list[int]:
    """How far away the eight signs in the middle come again: the only periods that such a stretch can have."""
    start = middle - 4
    around = signs[start : middle + 4]
    found = set()
    place = signs.find(around, start + 2, start + LONGEST_CHUNK + 8)
    while place >= 0:
        found.add(place - start)
        place = signs.find(around, place + 1, start + LONGEST_CHUNK + 8)
    place = signs.rfind(around, max(0, start - LONGEST_CHUNK), start + 6)
    while place >= 0:
        found.add(start - place)
        place = signs.rfind(around, max(0, start - LONGEST_CHUNK), place + 7)
    return sorted(found)


def _stretch(signs: str, middle: int, period: int) -> tuple[int, int]:
    """The longest stretch around the middle in which everything comes again after `period`."""

    def same(place: int) -> bool:
        return place >= 0 and place + period < len(signs) and signs[place] == signs[place + period] != "\0"

    anchor = middle if same(middle) else middle - period
    if not same(anchor):
        return middle, middle
    start = anchor
    while same(start - 1):
        start -= 1
    end = anchor
    while same(end):
        end += 1
    return start, end + period
