"""What hearing commands and cues costs as there are more of them, and what a reply costs."""

from __future__ import annotations

import random
import time
from typing import Any

from gentlegate.core.commands.templates import render
from gentlegate.core.engine import Engine
from gentlegate.core.events import Message, Person
from gentlegate.core.moments import SECOND

ROUNDS = 9
LINES = ("the rim is so even, how many pulls was it", "!name7", "!a5x3 please", "!nothing here", "kettle on? yes")
TEMPLATES = (
    "The kiln is at 640 °C and climbing.",
    "{{ person.name }}, live for {{ stream.uptime }}; pots lost: {{ counter.lost }}.",
    '{{ person.name }} pours {{ "oolong,mint,rooibos" | split: "," | pick }} tea, the {{ uses | ordinal }} today.',
    "{% if args == '' %}Nobody{% else %}{{ args | upcase | truncate: 40 }}{% endif %} at {{ now }}",
    "{% for word in arg %}{{ word | capitalize }} {% endfor %}",
)
VARIABLES: dict[str, Any] = {
    "person": {"name": "Thimblewick", "login": "thimblewick"},
    "stream": {"uptime": "1 h 12 min"},
    "counter": {"lost": 3},
    "uses": 12,
    "args": "two mugs and a bowl",
    "arg": ["two", "mugs", "and", "a", "bowl"],
    "now": "18:04",
}


def commanding() -> list[tuple[str, str]]:
    """Rows of what was measured, and its value."""
    few, many = _engine(10, 2), _engine(1000, 200)
    times = [(_heard(few, n), _heard(many, n)) for n in range(ROUNDS)]
    small, large = min(one for one, _ in times), min(other for _, other in times)
    taken = _rendered()
    return [
        ("a line: 10 commands, 2 cues", f"{small * 1e6:.0f} µs"),
        ("a line: 1,000 commands of 6 names, 200 cues", f"{large * 1e6:.0f} µs"),
        ("a thousand beside ten", f"{large / small:.2f} times"),
        (
            "a reply rendered, p50 / p99",
            f"{taken[len(taken) // 2] * 1e6:.0f} / {taken[len(taken) * 99 // 100] * 1e6:.0f} µs",
        ),
    ]


def _engine(commands: int, cues: int) -> Engine:
    return Engine(
        {
            "commands": [
                {"name": f"name{n}", "aliases": [f"a{n}x{k}" for k in range(5)], "reply": "x"}
                for n in range(commands)
            ],
            "cues": [{"name": f"c{n}", "hears": [f"word{n} other{n}"], "reply": "x"} for n in range(cues)],
        }
    )


def _heard(engine: Engine, number: int) -> float:
    """Seconds a line."""
    person = Person("brook", "u-v", "v", "v", frozenset({"vip"}))
    messages = [
        Message(engine.now + (n + 1) * SECOND, "brook", f"m{number}-{n}", person, LINES[n % len(LINES)])
        for n in range(500)
    ]
    begun = time.thread_time()
    for message in messages:
        engine.handle(message)
    return (time.thread_time() - begun) / len(messages)


def _rendered() -> list[float]:
    taken = []
    for n in range(4000):
        begun = time.perf_counter()
        render(TEMPLATES[n % len(TEMPLATES)], VARIABLES, lambda: random.Random(1))
        taken.append(time.perf_counter() - begun)
    return sorted(taken)
