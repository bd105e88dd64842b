"""Which notice comes next: in turn, or shuffled so that each comes once a round (spec page 6, rule 6)."""

from __future__ import annotations

from collections.abc import Callable
from datetime import date, datetime, time, timedelta
from typing import Any
from zoneinfo import ZoneInfo

from gentlegate.core.kit.model import Notice, Rota
from gentlegate.core.moments import SECOND, as_datetime, moment_of
from gentlegate.core.records import RotaRecord


def today(now: int, zone: str) -> date:
    return as_datetime(now - now % SECOND).astimezone(ZoneInfo(zone)).date()


def midnight(day: date, zone: str) -> int:
    """The moment at which a day begins in a zone."""
    return moment_of(datetime.combine(day, time.min, ZoneInfo(zone)))


def midnight_after(day: date, zone: str) -> int:
    """The moment at which a day ends in a zone."""
    return midnight(day + timedelta(days=1), zone)


def where(notice: Notice, platforms: list[str]) -> list[str]:
    return platforms if notice.platforms is None else [name for name in platforms if name in notice.platforms]


def can_post(notice: Notice, platforms: list[str], day: date) -> bool:
    dated_in = (notice.from_ is None or notice.from_ <= day) and (notice.until is None or day <= notice.until)
    return notice.on and dated_in and bool(where(notice, platforms))


def candidates(
    rota: Rota, record: RotaRecord, platforms: list[str], day: date, chance: Callable[..., Any]
) -> list[int]:
    """The notices that may come now, best first; looking changes nothing but the round."""
    usable = [index for index, notice in enumerate(rota.notices) if can_post(notice, platforms, day)]
    if rota.order == "in turn":
        return sorted(usable, key=lambda index: (index - record.place) % len(rota.notices))
    left = [index for index in record.left if index in usable]
    if left or not usable:
        return left
    record.round += 1
    fresh = list(usable)
    chance("rota", rota.name, record.round).shuffle(fresh)
    if len(fresh) > 1 and fresh[0] == record.last_notice:
        fresh[0], fresh[-1] = fresh[-1], fresh[0]
    record.left = fresh
    return fresh


def taken(rota: Rota, record: RotaRecord, index: int) -> None:
    """Note that a notice was posted (or could not be rendered)."""
    record.place = (index + 1) % len(rota.notices)
    record.left = [other for other in record.left if other != index]
    record.last_notice = index


def next_date(rota: Rota, now: int, zone: str) -> int | None:
    """When the next of its notices is dated in, if one will be."""
    ahead = [midnight(n.from_, zone) for n in rota.notices if n.on and n.from_ and midnight(n.from_, zone) > now]
    return min(ahead, default=None)
