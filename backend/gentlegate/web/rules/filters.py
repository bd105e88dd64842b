"""The Rules room's routes: moods and filters, and changes of them, lasting or for tonight."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import APIRouter, Depends, Request

from gentlegate.core import tonight
from gentlegate.core.errors import ActError
from gentlegate.core.filters import KEYS
from gentlegate.core.judge import tally
from gentlegate.core.kit import edit
from gentlegate.core.kit.filters import LISTS, MOODS, with_mood
from gentlegate.core.kit.load import load_kit
from gentlegate.core.records import TallyRecord
from gentlegate.core.team import Account, Permissions
from gentlegate.core.text.folding import fold_name
from gentlegate.runtime.gate import Gate
from gentlegate.web.door.access import needs
from gentlegate.web.entries import change_all, revision
from gentlegate.web.problems import ANSWERS, Refused
from gentlegate.web.rules.schemas import FeedView, FilterView, Rules, SaveFilter, SetMood

routes = APIRouter(prefix="/api/rules", tags=["rules"], responses=ANSWERS)
Looking = Annotated[Account, Depends(needs("look"))]
Tonight = Annotated[Account, Depends(needs("tonight"))]


def known_filter(key: str) -> None:
    """ActError where there is no such filter."""
    if key not in KEYS:
        raise ActError(f'there is no filter "{key}"; there are: {", ".join(KEYS)}', "key")


def may_change(request: Request, account: Account, act: str, for_tonight: bool) -> None:
    """Lasting changes are a lead's; for tonight a moderator may make them too."""
    permissions: Permissions = request.app.state.access.permissions
    if not for_tonight and not permissions.may(account, act):
        raise Refused(403, "not-allowed", f"A {account.level} may change this for tonight only; a lead for good.")


def rules_of(gate: Gate) -> Rules:
    """Everything that the room shows."""
    parts = gate.engine.parts
    mood = parts.kit.channel.mood
    settled = with_mood(parts.kit.filters, mood)
    counts = tally.of_stream(parts, parts.streams.now.number)
    for_tonight = [change.path for change in tonight.changes(parts.state)]
    views = []
    for key in KEYS:
        section = getattr(settled, key)
        own = edit.read(gate.engine.effective, f"filters.{key}") or {}
        defaults = MOODS[mood][key]
        lists = list(LISTS.get(key, ()))
        count = counts.get(key, TallyRecord())
        values = _values(section, key)
        views.append(
            FilterView(
                key=key,
                values=values,
                revision=revision(values),
                own=[n for n in own if n in defaults and getattr(section, n) != defaults[n]],
                tonight=sorted({path.split(".")[2] for path in for_tonight if path.startswith(f"filters.{key}.")}),
                mood=defaults,
                lists={name: len(getattr(section, name) or []) for name in lists if name != "feeds"},
                stopped=count.stopped,
                exempt=count.exempt,
                undone=count.undone,
            )
        )
    return Rules(
        mood=mood,
        mood_tonight="channel.mood" in for_tonight,
        own=sum(len(view.own) for view in views),
        filters=views,
        feeds=_feeds(gate),
    )


def _values(section: Any, key: str) -> dict[str, Any]:
    """What holds for a filter, its long lists left out."""
    return {
        name: value for name, value in section.model_dump(mode="json").items() if name not in LISTS.get(key, ())
    }


def _feeds(gate: Gate) -> list[FeedView]:
    parts = gate.engine.parts
    views = []
    for feed in parts.kit.filters.links.feeds:
        record = parts.state.feeds.get(fold_name(feed.name))
        hosts = len(feed.hosts) + (len(record.hosts) if record else 0)
        at = record.at if record else None
        views.append(FeedView(name=feed.name, address=feed.address, on=feed.on, hosts=hosts, at=at))
    return views


@routes.get("", summary="The mood and every filter")
async def every(request: Request, _: Looking) -> Rules:
    return rules_of(request.app.state.gate)


@routes.put("/mood", summary="Set the mood; single changes stay unless they are to be dropped")
async def set_mood(body: SetMood, request: Request, account: Tonight) -> Rules:
    may_change(request, account, "mood", body.tonight)
    gate: Gate = request.app.state.gate
    if body.tonight:
        await gate.act(account, "setting", path="channel.mood", value=body.mood, tonight=True)
        return rules_of(gate)
    dropped = [
        (f"filters.{key}.{name}", None)
        for key in KEYS
        for name in sorted(
            set(edit.read(gate.engine.document, f"filters.{key}") or {}) & set(MOODS[body.mood][key])
        )
    ]
    await change_all(gate, account, [("channel.mood", body.mood), *(dropped if body.drop else [])])
    return rules_of(gate)


@routes.put("/filters/{key}", summary="Change values of a filter")
async def save(key: str, body: SaveFilter, request: Request, account: Tonight) -> Rules:
    known_filter(key)
    may_change(request, account, "filters", body.tonight)
    gate: Gate = request.app.state.gate
    load_kit(with_unsaved(gate.engine.effective, {key: body.values}))

    def still() -> None:
        kit = gate.engine.parts.kit
        now = _values(getattr(with_mood(kit.filters, kit.channel.mood), key), key)
        if body.revision not in (None, revision(now)):
            detail = "Somebody else has changed this filter meanwhile."
            raise Refused(409, "changed-meanwhile", detail, None, now, revision(now))

    still()
    changes = [(f"filters.{key}.{name}", value) for name, value in body.values.items()]
    if not body.tonight:
        await change_all(gate, account, changes, still=still)
    for path, value in changes if body.tonight else ():
        await gate.act(account, "setting", path=path, value=value, tonight=True)
    return rules_of(gate)


def with_unsaved(document: edit.Document, filters: dict[str, dict[str, Any]]) -> edit.Document:
    """The settings with unsaved values of filters in their place."""
    for key, values in filters.items():
        known_filter(key)
        section = {**(edit.read(document, f"filters.{key}") or {}), **values}
        kept = {name: value for name, value in section.items() if value is not None}
        document = edit.write(document, f"filters.{key}", kept)
    return document
