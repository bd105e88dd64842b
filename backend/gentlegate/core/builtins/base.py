"""What a built-in is: it plans a use before anything is done, so that the checks keep their order."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Protocol

from gentlegate.core.commands.use import Use
from gentlegate.core.effects import Effect, Why
from gentlegate.core.parts import Parts

Answer = tuple[list[Effect], str]
"""What is done, and what is said about it."""


@dataclass(frozen=True, slots=True)
class Plan:
    """What a use would do. `changes`: it sets something; `problem`: what is wrong with its arguments; `private`: only to who asked."""

    run: Callable[[], Answer]
    changes: bool = False
    may: Callable[[], bool] | None = None
    problem: str | None = None
    cools: bool = True
    guard: Callable[[], str | None] | None = None
    private: bool = False
    why: Why = "arguments"


class BuiltIn(Protocol):
    key: str

    def plan(self, use: Use, parts: Parts) -> Plan: ...


def refuse(problem: str, changes: bool = False, why: Why = "arguments") -> Plan:
    """A plan that is refused at the check of its arguments, saying why."""
    return Plan(run=lambda: ([], ""), problem=problem, changes=changes, why=why)
