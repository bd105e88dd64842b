"""What a filter's limit would catch of lines that were said: each line's measure, whatever the limit is now."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

from gentlegate.core.company import Company
from gentlegate.core.events import BROADCASTER, REGULAR, Message
from gentlegate.core.filters import Finding
from gentlegate.core.judge.judge import Sight
from gentlegate.core.kit import edit
from gentlegate.core.kit.load import load_kit
from gentlegate.core.parts import Parts
from gentlegate.core.state import State

LIMITS: dict[str, dict[str, tuple[Any, bool]]] = {
    "capitals": {"share": (0.001, True)},
    "symbols": {"share": (0.001, True), "marks": (0, False)},
    "emotes": {"most": (0, False)},
    "length": {"most": (0, False)},
    "repeats": {"run": (2, True), "words": (2, True)},
    "resends": {"copies": (2, True)},
    "pace": {"messages": (1, False)},
    "mentions": {"most": (0, False)},
    "copycats": {"people": (2, True)},
}
"""Per filter and limit: the widest-open value, and whether the limit is reached (true) or has to be passed."""
_OTHERS: dict[tuple[str, str], dict[str, Any]] = {
    ("repeats", "run"): {"words": 100_000},
    ("repeats", "words"): {"run": 100_000},
}
_OTHERS |= {("symbols", "share"): {"marks": 1000}, ("symbols", "marks"): {"share": 1.0, "least": 100_000}}


@dataclass(frozen=True, slots=True)
class Said:
    """A line that was said: whether by a regular or above, and its measure (None: nothing to measure)."""

    message: Message
    regular: bool
    measured: float | int | None
    exempt: bool


def lines_found(
    document: edit.Document,
    state: State,
    filter_: str,
    values: dict[str, Any],
    lines: Iterable[Message],
    field: str | None = None,
) -> list[Said]:
    """The lines that a filter with these values finds; with `field`, that limit is wide open.

    `state` is a blank one. The lines are read in their order, so that what somebody said before counts as it did then.
    """
    if field is not None:
        values = {**values, field: LIMITS[filter_][field][0], **_OTHERS.get((filter_, field), {})}
    section = {**(edit.read(document, f"filters.{filter_}") or {}), **values, "on": True}
    kept = {name: value for name, value in section.items() if value is not None}
    kit = load_kit(edit.write(document, f"filters.{filter_}", kept))
    parts = Parts(kit, state, 0, {})
    judge, company, seen = parts.judge, Company(), set[str]()
    judge.only(filter_)
    found = []
    for message in lines:
        known = parts.know(message.person)
        if known.unheard or known.level == BROADCASTER:
            continue
        heard = parts.ear.hear(message.text, message.reply_to is not None)
        new = known.identity not in seen
        seen.add(known.identity)
        judgement = judge.judge(
            message,
            message.at,
            identity=known.identity,
            level=known.level,
            live=True,
            body=heard.body if heard else 0,
            company=company,
            sight=Sight(first_ever=False, new_name=new),
        )
        mine = [finding for finding in judgement.findings if finding.filter == filter_] if judgement else []
        if not mine:
            continue
        assert judgement is not None
        exempt = all(reason.step is None for reason in judgement.verdict.reasons if reason.filter == filter_)
        found.append(Said(message, known.level >= REGULAR, _most(mine), exempt))
    return found


def _most(findings: list[Finding]) -> float | int | None:
    return max((finding.measured for finding in findings if finding.measured is not None), default=None)
