"""One root error; each narrow kind carries its evidence as fields."""

from __future__ import annotations


class GateError(Exception):
    """Anything that Gentle Gate itself refuses; its text says what happened and what to do."""


class KitError(GateError):
    """Settings that cannot be used.

    `path` is where in the document (`filters.links.allowed.1`, lists count from 0), `problem` what is wrong.
    """

    def __init__(self, path: str, problem: str) -> None:
        super().__init__(f"{path}: {problem}" if path else problem)
        self.path = path
        self.problem = problem


class TemplateProblem(GateError):
    """A template that does not parse, or failed when it was used. Lines and columns count from 1."""

    def __init__(self, problem: str, line: int | None = None, column: int | None = None) -> None:
        where = f"line {line}, column {column}: " if line is not None else ""
        super().__init__(where + problem)
        self.problem = problem
        self.line = line
        self.column = column


class LogLineError(GateError):
    """A chat-log line that cannot be read; `field` says where in the object."""

    def __init__(self, problem: str, field: str = "") -> None:
        super().__init__(f"{field}: {problem}" if field else problem)
        self.problem = problem
        self.field = field


class ActError(GateError):
    """An act at the Desk that asks for what is not there or cannot be."""

    def __init__(self, problem: str, field: str = "") -> None:
        super().__init__(problem)
        self.field = field


class JustDone(GateError):
    """Another moderator acted on the same line or person a moment ago: who, what and when.

    `goes_on` says whether one more press may still do what was asked; a weaker or equal act may not.
    """

    def __init__(self, who: str, outcome: str, at: int, seconds: int, goes_on: bool) -> None:
        super().__init__(f"{who} did that a moment ago ({outcome})")
        self.who = who
        self.outcome = outcome
        self.at = at
        self.seconds = seconds
        self.goes_on = goes_on


class LifecycleError(GateError):
    """An event that a lifecycle's table does not have in this state; nothing was changed."""

    def __init__(self, table: str, state: str, event: str) -> None:
        super().__init__(f"{table}: nothing is to be done about {event!r} while {state!r}")
        self.state = state
        self.event = event
