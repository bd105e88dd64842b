"""What a filter is: a look at one message, as it reads and as it stands among the person's last ones."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Protocol

from gentlegate.core.kit.filters import FilterSection
from gentlegate.core.text.reading import Reading


@dataclass(frozen=True, slots=True)
class Finding:
    """What a filter found.

    `step` is an entry's own fixed step; `allowed` and `forbidden` are a list's word on it; `text` is the piece found
    where that is not in the message; `quiet` findings turn a nudge into a plain removal; `unsure` ones are worth a
    second look.
    """

    filter: str
    span: tuple[int, int] | None
    measured: float | int | None = None
    limit: float | int | None = None
    step: str | None = None
    seconds: int | None = None
    allowed: bool = False
    forbidden: bool = False
    text: str | None = None
    quiet: bool = False
    unsure: bool = False


class Filter(Protocol):
    """One filter with its settings; `key` names it in kits, verdicts and on the screen.

    `on_plain` tells whether it can find anything in a plain message: ASCII without links, mentions and emotes, by
    somebody known, that is no action.
    """

    key: str
    on_plain: bool

    @property
    def settings(self) -> FilterSection: ...

    def look(self, reading: Reading) -> list[Finding]: ...


def barely(measured: float, limit: float) -> bool:
    """Whether a measure is so near its limit that somebody may see it otherwise."""
    return measured <= limit * 1.05
