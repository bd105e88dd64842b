"""What a filter is: a pure look at one message that gives findings."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Protocol

from gentlegate.core.kit.filters import FilterSection
from gentlegate.core.text.measures import Reading


@dataclass(frozen=True, slots=True)
class Finding:
    """What a filter found. `step` is an entry's own fixed step; `allowed` and `forbidden` are a list's word on it."""

    filter: str
    span: tuple[int, int] | None
    measured: float | int | None = None
    limit: float | int | None = None
    step: str | None = None
    seconds: int | None = None
    allowed: bool = False
    forbidden: bool = False


class Filter(Protocol):
    """One filter with its settings; `key` names it in kits, verdicts and on the screen."""

    key: str

    @property
    def settings(self) -> FilterSection: ...

    def look(self, reading: Reading) -> list[Finding]: ...
