"""`repeats`: a run of one character, one word over and over, or a chunk that fills the line."""

from __future__ import annotations

import re
from collections.abc import Iterator

from gentlegate.core.filters.base import Finding, barely
from gentlegate.core.kit.filters import Repeats
from gentlegate.core.text.reading import Reading
from gentlegate.core.text.spelling import fold

LONGEST_CHUNK, CHUNKS, FILLED, AT_LEAST = 40, 4, 0.6, 40
_WORD = re.compile(r"[^\s\0]+|\0+")
_PUNCTUATION = re.compile(r"[^\w]|_")


class RepeatsFilter:
    key = "repeats"

    def __init__(self, settings: Repeats) -> None:
        self.settings = settings
        self._run = settings.run or 25
        self._words = settings.words or 7
        self._long_run = re.compile(rf"([^\0])\1{{{min(self._run, 50_000) - 1},}}", re.DOTALL)

    def look(self, reading: Reading) -> list[Finding]:
        text = reading.lower
        many = len(text.split()) >= self._words
        if len(text) < min(self._run, AT_LEAST) and not many:
            return []
        found = list(self._one_character(reading))
        if many:
            found += self._one_word(reading)
        if not found and len(text) >= AT_LEAST:
            found += self._one_chunk(reading)
        return found

    def _one_character(self, reading: Reading) -> Iterator[Finding]:
        if reading.ascii:
            match = self._long_run.search(reading.lower)
            if match is None or (
                reading.left_out and (match := self._long_run.search(reading.measured.lower())) is None
            ):
                return
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
        words = reading.lower.split()
        if (
            len(words) - len(set(words)) < self._words - 2
            and reading.ascii
            and not _PUNCTUATION.search("".join(words))
        ):
            return
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
        text = reading.measured.lower()
        signs = text if reading.ascii else reading.measured_clusters
        size = len(signs) - signs.count("\0")
        if size < AT_LEAST:
            return
        middle = len(signs) // 2
        periods = [
            p
            for p in range(2, LONGEST_CHUNK + 1)
            if signs[middle - 1 : middle + 1]
            in (signs[middle - 1 + p : middle + 1 + p], signs[middle - 1 - p : middle + 1 - p])
        ]
        for period in periods:
            start, end = _stretch(signs, middle, period)
            length = end - start
            if length >= CHUNKS * period and length > FILLED * size and len(set(signs[start : start + period])) > 1:
                first = len("".join(signs[:start]))
                span = (first, first + len("".join(signs[start:end])))
                share = length / size
                yield Finding(self.key, span, round(share, 4), FILLED, unsure=barely(share, FILLED))
                return


def _stretch(signs: str | list[str], middle: int, period: int) -> tuple[int, int]:
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
