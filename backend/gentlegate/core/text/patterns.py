"""Patterns (RE2 regular expressions, so that none can hang the gate), many at a time.

RE2's `\\w` and `\\b` know ASCII only. Here `\\w` means letters and digits of every script, and a `\\b` at either end
of a pattern is checked with `str.isalnum`; inside a pattern it stays what RE2 says.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import re2

from gentlegate.core.text.phrases import Hit
from gentlegate.core.text.spelling import fold, fold_with_places

MOST_MEMORY = 64 << 20
MOST_HITS = 20
_TOKEN = re.compile(r"\\.|\[\^?\]?|\]|.", re.DOTALL)


def _options() -> Any:
    options = re2.Options()
    options.max_mem = MOST_MEMORY
    options.log_errors = False
    return options


class PatternProblem(ValueError):
    """A pattern that RE2 does not take; `column` counts from 1."""

    def __init__(self, problem: str, column: int) -> None:
        super().__init__(f"column {column}: {problem}")
        self.column = column


@dataclass(frozen=True, slots=True)
class Pattern:
    """One pattern made ready; `before` and `after` ask for a word's edge there."""

    index: int
    source: str
    compiled: Any
    before: bool
    after: bool


@lru_cache(maxsize=2_000)
def read_pattern(index: int, text: str) -> Pattern:
    """Compile a pattern. PatternProblem says what is wrong and where."""
    source, before, after = text, False, False
    if source.startswith(r"\b"):
        source, before = source[2:], True
    if source.endswith(r"\b") and not source.endswith(r"\\b"):
        source, after = source[:-2], True
    source = _every_script(source)
    try:
        compiled = re2.compile(source, _options())
    except re2.error as error:
        problem = error.args[0].decode() if isinstance(error.args[0], bytes) else str(error.args[0])
        fragment = problem.rpartition(": ")[2]
        raise PatternProblem(f"not a pattern RE2 can use ({problem})", max(0, text.find(fragment)) + 1) from None
    if compiled.search("") is not None:
        raise PatternProblem("it matches nothing at all, and so every message", 1)
    return Pattern(index, source, compiled, before, after)


def _every_script(source: str) -> str:
    inside = False
    pieces = []
    for match in _TOKEN.finditer(source):
        token = match[0]
        if token == r"\w":
            token = r"\pL\pN\pM_" if inside else r"[\pL\pN\pM_]"
        elif token == r"\W" and not inside:
            token = r"[^\pL\pN\pM_]"
        elif token.startswith("[") and not inside:
            inside = True
        elif token == "]":
            inside = False
        pieces.append(token)
    return "".join(pieces)


class Patterns:
    """A list of patterns as one RE2 set; made once per change of settings."""

    def __init__(self, patterns: list[Pattern]) -> None:
        self._patterns = patterns
        self._set: Any = None
        if patterns:
            self._set = re2.Set.SearchSet(_options())
            for pattern in patterns:
                self._set.Add(pattern.source)
            self._set.Compile()

    def find(self, text: str) -> list[Hit]:
        """Hits in the text and in its folded form."""
        if self._set is None:
            return []
        folded = fold(text)
        plainly = self._set.Match(text)
        through = self._set.Match(folded) if folded != text else None
        if not plainly and not through:
            return []
        hits = {}
        for number in plainly or ():
            for start, end in self._spans(self._patterns[number], text):
                hits[self._patterns[number].index, start] = Hit(self._patterns[number].index, start, end, False)
        if through:
            folded, places = fold_with_places(text)
            for number in through:
                index = self._patterns[number].index
                for start, end in self._spans(self._patterns[number], folded):
                    first, last = (start, end - 1) if places is None else (places[start], places[end - 1])
                    if not any(i == index and h.start <= first < h.end for (i, _), h in hits.items()):
                        hits[index, first] = Hit(index, first, last + 1, True)
        return sorted(hits.values(), key=lambda hit: (hit.start, hit.phrase))[:MOST_HITS]

    @staticmethod
    def _spans(pattern: Pattern, text: str) -> list[tuple[int, int]]:
        found = []
        for match in pattern.compiled.finditer(text):
            start, end = match.span()
            if start == end:
                continue
            if pattern.before and start and text[start - 1].isalnum() and text[start].isalnum():
                continue
            if pattern.after and end < len(text) and text[end - 1].isalnum() and text[end].isalnum():
                continue
            found.append((start, end))
            if len(found) == MOST_HITS:
                break
        return found
