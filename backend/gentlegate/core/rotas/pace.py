"""How fast chat goes over a stream: lines a minute, piece by piece, and when so many lines will have come."""

from __future__ import annotations

from bisect import bisect_left
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from itertools import accumulate

from gentlegate.core.moments import MINUTE

PIECE = 5 * MINUTE
"""How long one rate holds, in microseconds; the last one holds on."""


@dataclass(frozen=True, slots=True)
class Pace:
    """`rates` are lines a minute, one for each PIECE since the stream began."""

    rates: tuple[float, ...]
    sums: tuple[float, ...] = ()

    @staticmethod
    def of(rates: Sequence[float]) -> Pace:
        """ValueError where a rate is below zero or no number."""
        if not rates or any(not 0 <= rate < 1e6 for rate in rates):
            raise ValueError("a pace needs rates of zero or more lines a minute")
        pieces = [rate * PIECE / MINUTE for rate in rates]
        return Pace(tuple(rates), (0.0, *accumulate(pieces)))

    def lines(self, offset: int) -> float:
        """Lines that came since the stream began, `offset` microseconds ago; with fractions."""
        piece = min(max(offset, 0) // PIECE, len(self.rates) - 1)
        return self.sums[piece] + self.rates[piece] * (max(offset, 0) - piece * PIECE) / MINUTE

    def offset(self, lines: float) -> int | None:
        """The first microsecond since the beginning at which so many lines have come; None where they never do."""
        if lines <= 0:
            return 0
        piece = min(max(bisect_left(self.sums, lines) - 1, 0), len(self.rates) - 1)
        rate = self.rates[piece]
        if rate == 0:
            return None
        offset = piece * PIECE + int((lines - self.sums[piece]) * MINUTE / rate)
        while self.lines(offset) < lines:
            offset += 1
        return offset

    def mean(self, offset: int, length: int) -> float:
        """Lines a minute over `length` microseconds from `offset` on."""
        return (self.lines(offset + length) - self.lines(offset)) * MINUTE / length


def usual(streams: Iterable[Iterable[int]]) -> Pace | None:
    """The pace of recorded streams, each given by the offsets of its lines; None where there are none.

    Each piece is the mean over the streams that lasted that long.
    """
    pieces: list[list[int]] = []
    for offsets in streams:
        counts: list[int] = []
        for offset in offsets:
            place = max(offset, 0) // PIECE
            counts.extend([0] * (place + 1 - len(counts)))
            counts[place] += 1
        for place, count in enumerate(counts):
            if place == len(pieces):
                pieces.append([])
            pieces[place].append(count)
    if not pieces:
        return None
    return Pace.of([sum(counts) / len(counts) * MINUTE / PIECE for counts in pieces])
