"""What every screen shows: the recent lines with what the gate did about each, and the bench.

It is made from events and effects alone, so that after a restart the same screen comes from what was stored.
"""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Iterable
from typing import Any

from gentlegate.core import tonight
from gentlegate.core.engine import Engine
from gentlegate.core.events import LEVELS, Message
from gentlegate.core.judge import drawbridge, passes
from gentlegate.core.kit.model import Rota
from gentlegate.core.moments import MINUTE
from gentlegate.core.records import TonightRecord
from gentlegate.core.stream import ads, categories, raids

KEPT_LINES = 400
KEPT_ROTAS = 20
LONGEST_NOTICE = 120
FAR = 2**62
MARKED = frozenset(
    {
        "verdict",
        "refused",
        "counter",
        "title",
        "category",
        "marker",
        "clip",
        "ad",
        "raid",
        "shoutout",
        "undone",
        "say",
        "warning",
        "mark",
        "pass",
    }
)
SENDING_SHOWN = frozenset(
    {
        "remove",
        "timeout",
        "ban",
        "unban",
        "restore",
        "say",
        "title",
        "category",
        "marker",
        "clip",
        "ad",
        "raid",
        "shoutout",
        "followers_only",
    }
)
Change = dict[str, Any]


class Screen:
    """Lines by key (`platform message`), newest last; `take` gives what changed since it was last asked.

    `names` are the accounts' names by their key in events.
    """

    def __init__(self, engine: Engine, names: dict[str, str]) -> None:
        self._engine = engine
        self._names = names
        self._lines: OrderedDict[str, dict[str, Any]] = OrderedDict()
        self._messages: dict[str, tuple[Message, int]] = {}
        self._by_effect: OrderedDict[int, tuple[str, str]] = OrderedDict()
        self._changed: OrderedDict[str, None] = OrderedDict()
        self._parts: dict[str, Any] = {}
        self._lamps: dict[str, dict[str, str]] = {}
        self._present: list[str] = []
        self._revision = 0
        self._times: list[int] = []

    def line(self, message: Message, now: int) -> None:
        """A message came."""
        parts = self._engine.parts
        person = message.person
        key = f"{message.platform} {message.id}"
        level = parts.level(person)
        self._messages[key] = (message, level)
        self._times.append(now)
        self._lines[key] = {
            "key": key,
            "at": now,
            "platform": message.platform,
            "id": message.id,
            "person": {
                "key": person.key,
                "identity": parts.directory.identity(person),
                "login": person.login,
                "name": person.name,
                "level": LEVELS[level],
            },
            "gatekeeper": parts.directory.holds(parts.directory.gatekeeper, person),
            "action": message.action,
            "text": message.text,
            "marks": [],
            "sending": {},
        }
        self._changed[key] = None
        while len(self._lines) > KEPT_LINES:
            old, _ = self._lines.popitem(last=False)
            self._changed.pop(old, None)
            self._messages.pop(old, None)

    def effect(self, number: int, body: dict[str, Any], status: str | None = None) -> None:
        """Something came of a message; `body` is the effect as it is stored."""
        message = body.get("message") or (body.get("cause") or {}).get("message")
        platform = body.get("platform") or self._platform_of(message)
        key = f"{platform} {message}"
        if message is None or key not in self._lines:
            return
        line = self._lines[key]
        by_hand = body.get("cause") or {}
        if by_hand.get("kind") == "desk" and by_hand["name"] == body["effect"] and body.get("by"):
            who = self._names.get(body["by"], body["by"])
            act = {"effect": "act", "outcome": body["effect"], "seconds": body.get("seconds"), "by_name": who}
            line["marks"].append(act)
        if body["effect"] in MARKED:
            kept = {name: value for name, value in body.items() if name not in ("at", "platform", "message")}
            if body.get("by"):
                kept["by_name"] = self._names.get(body["by"], body["by"])
            if body["effect"] == "counter" and (counter := self._engine.parts.counters.find(body["name"])):
                kept["label"] = counter.shown
            line["marks"].append(kept)
        if body["effect"] in SENDING_SHOWN:
            self._by_effect[number] = (key, body["effect"])
            line["sending"][body["effect"]] = status or "waiting"
            while len(self._by_effect) > KEPT_LINES:
                self._by_effect.popitem(last=False)
        self._changed[key] = None

    def _platform_of(self, message: str | None) -> str | None:
        return next((line["platform"] for line in reversed(self._lines.values()) if line["id"] == message), None)

    def sending(self, number: int, status: str) -> None:
        """How the sending of an effect stands now."""
        if number in self._by_effect:
            key, what = self._by_effect[number]
            if key in self._lines:
                self._lines[key]["sending"][what] = status
                self._changed[key] = None

    def lamp(self, platform: str, lamp: str, note: str) -> None:
        self._lamps[platform] = {"lamp": lamp, "note": note}

    def lamps(self) -> dict[str, str]:
        """How each platform's connection stands."""
        return {platform: lamp["lamp"] for platform, lamp in self._lamps.items()}

    def present(self, names: Iterable[str]) -> None:
        self._present = sorted(set(names))

    def settings_changed(self) -> None:
        self._revision += 1

    def snapshot(self) -> dict[str, Any]:
        """Everything; later changes build on it."""
        return {"lines": list(self._lines.values()), "parts": dict(self._parts)}

    def take(self, now: int) -> list[Change]:
        """What changed since the last call."""
        changes: list[Change] = [{"line": self._lines[key]} for key in self._changed]
        self._changed.clear()
        for name, value in self._bench(now).items():
            if self._parts.get(name) != value:
                self._parts[name] = value
                changes.append({"part": name, "value": value})
        return changes

    def _bench(self, now: int) -> dict[str, Any]:
        parts = self._engine.parts
        stream = parts.streams.now
        self._times = [at for at in self._times if now - at < MINUTE]
        return {
            "stream": {
                "live": parts.streams.live,
                "phase": stream.phase,
                "began": stream.began,
                "number": stream.number,
                "same_category": categories.agree(
                    parts, {name: parts.category(name) or "" for name in stream.live}
                ),
                "platforms": [self._platform(name, now) for name in parts.platform_names()],
            },
            "counters": [self._counter(counter) for counter in parts.counters.all.values()],
            "cooldowns": self._cooldowns(now),
            "notices": self._notices(now),
            "channel": {
                "name": parts.kit.channel.name,
                "prefix": parts.kit.channel.prefix,
                "mood": parts.kit.channel.mood,
            },
            "ladder": self._ladder,
            "passes": self._passes(now),
            "looks": self._looks(),
            "overlaps": self._overlaps(),
            "raid": self._raid(),
            "tonight": [self._tonight(change) for change in tonight.changes(parts.state)],
            "bridge": self._bridge(now),
            "present": self._present,
            "settings": self._revision,
            "pace": len(self._times),
        }

    def _platform(self, name: str, now: int) -> dict[str, Any]:
        parts = self._engine.parts
        record = parts.state.platforms.get(name)
        return {
            "name": name,
            "live": name in parts.streams.now.live,
            "title": (record.title if record else None) or "",
            "category": (record.category if record else None) or "",
            "limit": parts.abilities(name).title,
            "can": self._can(name),
            "ad": self._ad(name, now),
            **self._lamps.get(name, {"lamp": "connecting", "note": ""}),
        }

    def _can(self, name: str) -> dict[str, Any]:
        """What a platform can do that the bench has a press for."""
        abilities = self._engine.parts.abilities(name)
        return {
            "marker": abilities.marker,
            "clip": abilities.clip,
            "raid": abilities.raid,
            "shoutout": abilities.shoutout,
            "ads": list(abilities.ads),
        }

    def _ad(self, name: str, now: int) -> dict[str, Any] | None:
        record = ads.running(self._engine.parts, name, now)
        return {"began": record.began, "until": record.until} if record else None

    def _raid(self) -> dict[str, Any] | None:
        record = raids.armed(self._engine.parts)
        if record is None:
            return None
        by = self._names.get(record.by, record.by_name)
        return {"platform": record.platform, "name": record.name, "due": record.due, "by": by}

    def _counter(self, counter: Any) -> dict[str, Any]:
        counters = self._engine.parts.counters
        record = counters.record(counter)
        last = counters.last_by(counter)
        return {
            "name": counter.name,
            "label": counter.shown,
            "value": counters.value(counter),
            "lowest": counter.lowest,
            "by": record.by_name if record else None,
            "at": last.at if last else None,
            "undo": last is not None,
        }

    def _cooldowns(self, now: int) -> list[dict[str, Any]]:
        parts = self._engine.parts
        shown = {slot.key: slot.shown for slot in (*parts.slots.values(), *parts.cues)}
        running = parts.cooldowns.running(parts.cooldown_of, now, parts.streams.now.number)
        return [
            {
                "command": shown[r.command],
                "key": r.command,
                "who": r.who,
                "identity": r.identity,
                "began": r.began,
                "until": r.until,
            }
            for r in running[:30]
            if r.until != r.began
        ]

    @property
    def _ladder(self) -> dict[str, Any]:
        ladder = self._engine.parts.judge.ladder
        steps = [{"strikes": s.strikes, "step": s.step, "seconds": s.seconds} for s in ladder.steps]
        return {"steps": steps, "memory": ladder.memory, "grace": ladder.grace}

    def _passes(self, now: int) -> list[dict[str, Any]]:
        state = self._engine.parts.state
        found = []
        for identity, record in state.passes.items():
            filters = [key for key in record.filters if passes.covers(state, identity, key, now)]
            if filters:
                ends = [record.filters[key] for key in filters]
                until = None if None in ends else max(end for end in ends if end is not None)
                by = self._names.get(record.by, record.by)
                found.append(
                    {"person": identity, "name": record.name, "filters": filters, "until": until, "by": by}
                )
        return found

    def _looks(self) -> list[dict[str, Any]]:
        """Open second looks, oldest first."""
        found: list[dict[str, Any]] = []
        for key, record in self._engine.parts.state.looks.items():
            if record.settled is None:
                platform, _, message = key.partition("\t")
                line = self._lines.get(f"{platform} {message}")
                shown = (
                    {"name": line["person"]["name"], "text": line["text"]} if line else {"name": None, "text": None}
                )
                by = self._names.get(record.by, record.by) if record.by else None
                found.append(
                    {
                        "platform": platform,
                        "message": message,
                        "at": record.at,
                        "why": record.why,
                        "by": by,
                        "filter": record.filter,
                    }
                    | shown
                )
        return sorted(found, key=lambda look: look["at"])[:50]

    def _overlaps(self) -> list[dict[str, Any]]:
        """Other bots that answer commands of ours, until somebody has seen to it."""
        parts = self._engine.parts
        found = []
        for key, record in parts.state.overlaps.items():
            command, _, person = key.partition("\t")
            slot = parts.slots.get(command)
            if record.said_at is not None and record.settled_by is None and slot is not None and slot.on:
                found.append({"key": command, "command": slot.shown, "person": person, "name": record.name})
        return found

    def _tonight(self, change: TonightRecord) -> dict[str, Any]:
        return {
            "number": change.number,
            "path": change.path,
            "value": tonight.value_of(change),
            "how": "add" if change.add is not None else "take" if change.take is not None else "set",
            "by": self._names.get(change.by, change.by),
        }

    def _bridge(self, now: int) -> dict[str, Any]:
        record = drawbridge.record(self._engine.parts)
        offered = record.offered is not None and now - record.offered < drawbridge.OFFERED_FOR
        by = self._names.get(record.by, record.by) if record.by else None
        return {"up": record.up, "until": record.until, "offered": offered, "why": record.why, "by": by}

    def _notices(self, now: int) -> list[dict[str, Any]]:
        """The rotas that come next, soonest first."""
        rotas = self._engine.rotas
        soonest = sorted(rotas.rotas, key=lambda rota: (not rota.on, rotas.record(rota).due or FAR))
        held = rotas.held_until()
        return [self._notice(rota, now, held if held and held > now else None) for rota in soonest[:KEPT_ROTAS]]

    def _notice(self, rota: Rota, now: int, held: int | None) -> dict[str, Any]:
        rotas = self._engine.rotas
        record, upcoming = rotas.record(rota), rotas.next_notice(rota, now)
        words = (
            ""
            if upcoming is None
            else upcoming.text or f"{self._engine.parts.kit.channel.prefix}{upcoming.command}"
        )
        ready = record.ready is not None
        return {
            "name": rota.name,
            "on": rota.on,
            "paused": record.paused,
            "due": record.due,
            "lines": rotas.lines_missing(rota),
            "held": held if ready and not rota.alone else None,
            "ready": ready,
            "posted": record.last,
            "next": words[:LONGEST_NOTICE],
            "where": rotas.platforms(rota),
        }

    def message(self, platform: str, id: str) -> Message | None:
        """A message that is shown."""
        found = self._messages.get(f"{platform} {id}")
        return found[0] if found else None
