"""`gentlegate replay`: the engine over a log, with no server, no network and no clock of its own."""

from __future__ import annotations

import gc
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any, BinaryIO, TextIO

from gentlegate.core.effects import Effect
from gentlegate.core.engine import Engine
from gentlegate.core.errors import GateError
from gentlegate.core.events import Message
from gentlegate.core.moments import format_moment
from gentlegate.formats.effects import effect_line
from gentlegate.formats.log import read_line


@dataclass(frozen=True, slots=True)
class Wanted:
    """Which effects are written; all of them where `only` is empty. `every`: a verdict for every message."""

    only: frozenset[str] = frozenset()
    every: bool = False


def replay(
    lines: Iterable[bytes],
    document: dict[str, Any],
    out: BinaryIO,
    complaints: TextIO,
    *,
    seed: int = 0,
    until: int | None = None,
    wanted: Wanted = Wanted(),
) -> int:
    """Run the log and write the effects; returns how many lines were bad. KitError before anything runs."""
    engine = Engine(document, seed=seed, every_verdict=wanted.every)
    gc.freeze()
    bad = 0

    def write(effects: list[Effect]) -> None:
        for effect in effects:
            if not wanted.only or effect.effect in wanted.only:
                out.write(effect_line(effect))

    for number, line in enumerate(lines, start=1):
        if not line.strip():
            continue
        try:
            event = read_line(line)
            if event.at < engine.now:
                raise GateError(
                    f"at: time runs backwards, from {format_moment(engine.now)} to {format_moment(event.at)}"
                )
            if type(event) is not Message:
                write(engine.advance(event.at))
            write(engine.handle(event))
        except GateError as error:
            bad += 1
            complaints.write(f"line {number}: {error}\n")
    if until is not None:
        write(engine.advance(until))
    if bad:
        complaints.write(f"{bad} bad {'line' if bad == 1 else 'lines'} skipped\n")
    return bad
