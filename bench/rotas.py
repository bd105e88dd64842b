"""What rotas cost: a line in chat while there are many, and a forecast of a long evening."""

from __future__ import annotations

import time

from gentlegate.core.engine import Engine
from gentlegate.core.events import Message, Person, StreamChange
from gentlegate.core.kit.load import load_kit
from gentlegate.core.moments import HOUR, SECOND
from gentlegate.core.platforms import Abilities
from gentlegate.core.rotas.forecast import from_now
from gentlegate.core.rotas.pace import Pace
from gentlegate.core.state import State

MANY, FORESEEN, HOURS, ROUNDS = 500, 50, 12, 9
PLATFORMS = {"brook": 0.5, "lantern": 0.3, "plaza": 0.2}


def _rotas(count: int) -> list[dict[str, object]]:
    return [
        {
            "name": f"rota {n}",
            "order": ("in turn", "shuffled")[n % 2],
            "notices": [{"text": f"{k}"} for k in range(6)],
        }
        for n in range(count)
    ]


def rotas() -> list[tuple[str, str]]:
    """Rows of what was measured, and its value."""
    few, many = Engine({}), Engine({"rotas": _rotas(MANY)})
    for engine in (few, many):
        engine.handle(StreamChange(0, "brook", True))
    times = [(_line(few, n), _line(many, n)) for n in range(ROUNDS)]
    without, beside = min(one for one, _ in times), min(other for _, other in times)
    posts, taken = _forecast()
    return [
        (f"a line with {MANY} rotas, beyond one with none", f"{(beside - without) * 1e3:.2f} ms"),
        (f"forecast of {FORESEEN} rotas over {HOURS} h ({posts} posts)", f"{taken * 1e3:.0f} ms"),
    ]


def _line(engine: Engine, number: int) -> float:
    """Seconds a line, half an hour into the stream and later."""
    people = [Person("brook", f"u{n}", f"u{n}", f"u{n}") for n in range(50)]
    begin = max(engine.now, 1800 * SECOND)
    messages = [
        Message(begin + (n + 1) * SECOND // 10, "brook", f"m{number}-{n}", people[n % 50], f"hello there {n}")
        for n in range(500)
    ]
    begun = time.thread_time()
    for message in messages:
        engine.handle(message)
    return (time.thread_time() - begun) / len(messages)


def _forecast() -> tuple[int, float]:
    kit = load_kit({"rotas": _rotas(FORESEEN)})
    abilities = {name: Abilities() for name in PLATFORMS}
    taken = []
    for _ in range(ROUNDS):
        begun = time.thread_time()
        posts = from_now(kit, abilities, State(), 1, 0, HOURS * HOUR, Pace.of([8.0]), PLATFORMS)
        taken.append(time.thread_time() - begun)
    return len(posts), min(taken)
