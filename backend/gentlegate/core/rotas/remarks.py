"""What is worth saying about a forecast, before anybody has to wait to find out."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from typing import Any, Literal

from gentlegate.core.kit.model import Kit, Rota
from gentlegate.core.moments import MINUTE
from gentlegate.core.rotas.forecast import Post
from gentlegate.core.rotas.pace import Pace

What = Literal["no lines", "few lines", "nothing to say", "shorter than spacing", "many"]
HOUR = 60 * MINUTE
NEAR = 3
"""A rota is near its limit where chat is less than so many times what it needs."""
SPAM = 8
"""From one notice in so many messages on it is said."""


@dataclass(frozen=True, slots=True)
class Remark:
    """`rota` is None where it is about all of them; `values` are what its sentence tells."""

    what: What
    rota: str | None = None
    values: dict[str, Any] = field(default_factory=dict)


def remarks(kit: Kit, posts: Sequence[Post], pace: Pace, offset: int, length: int) -> list[Remark]:
    """About `length` microseconds of forecast that begin `offset` microseconds into a stream."""
    rate = pace.mean(offset, length)
    about = [one for rota in kit.rotas if rota.on for one in _of_rota(rota, kit, posts, rate, length)]
    return [*about, *_of_all(posts, rate, length)]


def _of_rota(rota: Rota, kit: Kit, posts: Sequence[Post], rate: float, length: int) -> Iterator[Remark]:
    posted = any(post.rota == rota.name for post in posts)
    under = rota.chat_lines * MINUTE / length
    values = {"lines": rota.chat_lines, "under": round(under, 1) or round(under, 2)}
    if not posted and rota.chat_lines and rate < under * 1.2:
        yield Remark("no lines", rota.name, values)
    elif not posted:
        yield Remark("nothing to say", rota.name)
    elif rota.chat_lines and rate < under * NEAR:
        yield Remark("few lines", rota.name, values)
    if rota.every < kit.channel.spacing and not rota.alone:
        yield Remark("shorter than spacing", rota.name)


def _of_all(posts: Sequence[Post], rate: float, length: int) -> Iterator[Remark]:
    if not posts:
        return
    an_hour = len(posts) * HOUR / length
    one_in = (an_hour + rate * 60) / an_hour
    if one_in <= SPAM:
        yield Remark("many", None, {"an_hour": round(an_hour), "one_in": round(one_in)})
