"""Replies as Liquid templates, sandboxed: few tags, few filters, and a bound on everything.

The library limits loops, nesting and output, but not the work inside a filter; so only the filters that replies need
are offered, and each is wrapped in bounds on what goes in and what comes out.
"""

from __future__ import annotations

import random
import re
from collections.abc import Callable, Mapping
from functools import cache, lru_cache, wraps
from typing import TYPE_CHECKING, Any

from gentlegate.core.commands.values import MomentWords, SpanWords, ordinal
from gentlegate.core.errors import TemplateProblem
from gentlegate.core.moments import SECOND

if TYPE_CHECKING:
    from liquid import BoundTemplate, Environment

LONGEST_OUTPUT = 1000
LONGEST_TEXT = 2000
MOST_ITEMS = 200
BIGGEST_NUMBER = 10**15
TAGS = (
    "content", "output", "illegal", "if", "unless", "case", "for", "break", "continue", "assign", "capture", "comment", "#",
)  # fmt: skip
FILTERS = (
    "abs", "at_least", "at_most", "append", "capitalize", "ceil", "default", "divided_by", "downcase", "first", "floor",
    "join", "last", "minus", "modulo", "plus", "prepend", "remove", "replace", "reverse", "round", "size", "slice", "split",
    "strip", "times", "truncate", "truncatewords", "upcase", "url_encode",
)  # fmt: skip
_PART = re.compile(r"\{\{.*?\}\}|\{%.*?%\}", re.DOTALL)
CHANCE = "__chance"


def render(text: str, variables: Mapping[str, Any], chance: Callable[[], random.Random]) -> str:
    """The template's text on one line, at most 1,000 characters. TemplateProblem if it fails."""
    if "{" not in text:
        return " ".join(text.split())[:LONGEST_OUTPUT]
    from liquid.exceptions import LiquidError

    try:
        out = parse(text).render(**variables, **{CHANCE: chance})
    except (LiquidError, ValueError, TypeError, ArithmeticError, RecursionError) as error:
        raise TemplateProblem(str(error) or type(error).__name__) from None
    return " ".join(out.split())[:LONGEST_OUTPUT]


@lru_cache(maxsize=20_000)
def parse(text: str) -> BoundTemplate:
    """The parsed template. TemplateProblem with line and column if it does not parse."""
    from liquid.exceptions import LiquidError

    try:
        template = _environment().from_string(text)
        used = template.analyze().filters if "|" in text else {}
    except (LiquidError, RecursionError) as error:
        raise _problem(text, _index(text, error), str(getattr(error, "message", None) or error)) from None
    for name, places in used.items():
        if name not in _environment().filters:
            known = ", ".join(sorted(_environment().filters))
            raise _problem(text, places[0].index, f'there is no filter "{name}"; there are: {known}')
    return template


def _problem(text: str, index: int, problem: str) -> TemplateProblem:
    return TemplateProblem(problem, *_place(text, min(index, len(text))))


def _index(text: str, error: Exception) -> int:
    token = getattr(error, "token", None)
    if token is not None and token.start_index >= 0:
        return int(token.start_index)
    return next((m.start() for m in _PART.finditer(text) if _fails(m[0])), max(text.rfind("{"), 0))


def _place(text: str, index: int) -> tuple[int, int]:
    return text.count("\n", 0, index) + 1, index - (text.rfind("\n", 0, index) + 1) + 1


def _fails(part: str) -> bool:
    from liquid.exceptions import LiquidError

    try:
        _environment().from_string(part)
    except LiquidError:
        return part.startswith("{{")
    return False


@cache
def _environment() -> Environment:
    from liquid import Environment
    from liquid.filter import with_context

    class Sandbox(Environment):
        block_nesting_limit = 10
        context_depth_limit = 10
        loop_iteration_limit = 500
        local_namespace_limit = 20_000
        output_stream_limit = 4 * LONGEST_OUTPUT

    environment = Sandbox()
    environment.tags = {name: environment.tags[name] for name in TAGS}
    kept = {name: _bounded(environment.filters[name]) for name in FILTERS}
    own = {
        "pick": with_context(_pick),
        "roll": with_context(_roll),
        "duration": _duration,
        "ordinal": _ordinal,
        "time": _time,
    }
    environment.filters = kept | {name: _bounded(filter_) for name, filter_ in own.items()}
    return environment


def _bounded(filter_: Callable[..., Any]) -> Callable[..., Any]:
    @wraps(filter_)
    def within(*args: Any, **kwargs: Any) -> Any:
        for value in args:
            _check(value)
        result = filter_(*args, **kwargs)
        _check(result)
        return result

    return within


def _check(value: Any) -> None:
    if isinstance(value, str) and len(value) > LONGEST_TEXT:
        raise ValueError("a text in this template grows too long")
    if isinstance(value, list | tuple | range) and len(value) > MOST_ITEMS:
        raise ValueError("a list in this template grows too long")
    if isinstance(value, int | float) and abs(value) > BIGGEST_NUMBER:
        raise ValueError("a number in this template grows too large")


def _pick(value: Any, *, context: Any) -> Any:
    """One of a list, by the engine's chance."""
    items = list(value) if isinstance(value, list | tuple | range) else [value]
    return context.resolve(CHANCE)().choice(items) if items else ""


def _roll(value: Any, *, context: Any) -> int:
    """A whole number from 1 to `value`."""
    return int(context.resolve(CHANCE)().randint(1, max(1, int(value))))


def _duration(value: Any) -> str:
    return value if isinstance(value, SpanWords) else SpanWords(round(float(value) * SECOND))


def _ordinal(value: Any) -> str:
    return ordinal(int(value))


def _time(value: Any) -> str:
    return value.clock if isinstance(value, MomentWords) else str(value)
