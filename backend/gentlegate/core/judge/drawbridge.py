"""The drawbridge: one press that shuts a flood out for some minutes, and puts everything back after."""

from __future__ import annotations

from gentlegate.core.effects import Cause, Drawbridge, Effect, FollowersOnly
from gentlegate.core.errors import ActError
from gentlegate.core.events import DeskAct
from gentlegate.core.moments import MINUTE
from gentlegate.core.parts import Parts
from gentlegate.core.records import AccountRecord, BridgeRecord

UP_FOR = 10 * MINUTE
OFFERED_FOR = 10 * MINUTE
NEW_SINCE = 10 * MINUTE
COPYING_PEOPLE = 10
FIRST_EVER = 20
_KEY = "drawbridge"
_DOWN = BridgeRecord()


def record(parts: Parts) -> BridgeRecord:
    """Where it stands; read only."""
    return parts.state.bridge.get(_KEY) or _DOWN


def is_up(parts: Parts) -> bool:
    return record(parts).up is not None


def due(parts: Parts) -> int | None:
    """When it comes down by itself."""
    return record(parts).until


def holds_back(parts: Parts, account: AccountRecord | None) -> bool:
    """Whether this account counts as a newcomer while the bridge is up."""
    up = record(parts).up
    return up is not None and (account is None or account.first >= up - NEW_SINCE)


def offer(parts: Parts, why: str, now: int) -> list[Effect]:
    """Offer to raise it, once for each flood; or raise it, where the channel wants that."""
    before = record(parts)
    if before.up is not None or (before.offered is not None and now - before.offered < OFFERED_FOR):
        return []
    if parts.kit.drawbridge.auto:
        return _raise(parts, why, None, now)
    parts.state.bridge.put(_KEY, BridgeRecord(offered=now, why=why))
    return [Drawbridge(at=now, state="offered", why=why, until=None, by=None)]


def move(parts: Parts, act: DeskAct, now: int) -> list[Effect]:
    """Raise or lower it by hand: `up` true or false."""
    up = act.values.get("up")
    if not isinstance(up, bool):
        raise ActError("say whether up is true or false", "up")
    if up == is_up(parts):
        raise ActError("the drawbridge is up already" if up else "the drawbridge is down already", "up")
    if up:
        return _raise(parts, record(parts).why, act.by, now)
    return lower(parts, act.by, now)


def _raise(parts: Parts, why: str, by: str | None, now: int) -> list[Effect]:
    platforms = [name for name in parts.streams.now.live if parts.abilities(name).followers_only]
    until = now + UP_FOR
    parts.state.bridge.put(_KEY, BridgeRecord(up=now, until=until, by=by, why=why, platforms=platforms))
    cause = Cause("desk", "drawbridge")
    return [
        Drawbridge(at=now, state="raised", why=why, until=until, by=by, cause=cause),
        *(FollowersOnly(at=now, platform=name, on=True, cause=cause) for name in platforms),
    ]


def lower(parts: Parts, by: str | None, now: int) -> list[Effect]:
    """Put everything back; nothing where it is down."""
    before = record(parts)
    if before.up is None:
        return []
    parts.state.bridge.put(_KEY, BridgeRecord())
    cause = Cause("desk", "drawbridge")
    return [
        Drawbridge(at=now, state="lowered", why=before.why, until=None, by=by, cause=cause),
        *(FollowersOnly(at=now, platform=name, on=False, cause=cause) for name in before.platforms),
    ]


def stream_over(parts: Parts, now: int) -> list[Effect]:
    """It is up tonight at most."""
    effects = lower(parts, None, now)
    if record(parts).offered is not None:
        parts.state.bridge.put(_KEY, BridgeRecord())
    return effects
