"""The bench: what every Desk shows beside the chat, as it stands at a moment."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from gentlegate.core import tonight
from gentlegate.core.engine import Engine
from gentlegate.core.judge import drawbridge, passes
from gentlegate.core.kit.model import Rota
from gentlegate.core.records import TonightRecord
from gentlegate.core.stream import ads, categories, raids

KEPT_ROTAS = 20
LONGEST_NOTICE = 120
FAR = 2**62


class Bench:
    """`names` are the accounts' names by their key in events; `line_of` finds a line that is shown by its key."""

    def __init__(
        self, engine: Engine, names: dict[str, str], line_of: Callable[[str], dict[str, Any] | None]
    ) -> None:
        self._engine = engine
        self._names = names
        self._line_of = line_of
        self.lamps: dict[str, dict[str, str]] = {}

    def lamp_of(self, platform: str) -> dict[str, str]:
        """How a platform's connection stands, with a note where there is one."""
        return self.lamps.get(platform, {"lamp": "connecting", "note": ""})

    def parts(self, now: int) -> dict[str, Any]:
        """Every panel's content, by its name."""
        parts = self._engine.parts
        stream = parts.streams.now
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
            **self.lamp_of(name),
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
                line = self._line_of(f"{platform} {message}")
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
