"""What every screen shows: the recent lines with what the gate did about each, and the bench.

It is made from events and effects alone, so that after a restart the same screen comes from what was stored.
"""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Iterable
from typing import Any

from gentlegate.core.engine import Engine
from gentlegate.core.events import LEVELS, Happening, Message, Person
from gentlegate.core.moments import MINUTE
from gentlegate.runtime.bench import Bench

KEPT_LINES = 400
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
ABOUT_PEOPLE = frozenset({"timeout", "ban", "unban", "undone", "pass"})
"""What stands on a person's card."""
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
        self._bench = Bench(engine, names, self._lines.get)
        self._present: list[str] = []
        self._editing: list[dict[str, Any]] = []
        self._revision = 0
        self._team = 0
        self._people = 0
        self._ledger = 0
        self._times: list[int] = []

    def line(self, message: Message, now: int) -> None:
        """A message came."""
        parts, person = self._engine.parts, message.person
        key = f"{message.platform} {message.id}"
        level = parts.level(person)
        self._messages[key] = (message, level)
        self._times.append(now)
        gatekeeper = parts.directory.holds(parts.directory.gatekeeper, person)
        line = {"id": message.id, "gatekeeper": gatekeeper, "action": message.action, "text": message.text}
        self._put(key, now, message.platform, person, LEVELS[level], line)

    def happened(self, happening: Happening, now: int) -> None:
        """Somebody followed, subscribed, gave or came with a raid: a line that nothing can be done about."""
        told = {"what": happening.what, "amount": happening.amount, "text": happening.text}
        line = {"id": "", "gatekeeper": True, "action": False, "text": "", "happening": told}
        person = happening.person
        key = f"{happening.platform} {happening.what} {person.key} {now}"
        self._put(key, now, happening.platform, person, LEVELS[self._engine.parts.level(person)], line)

    def _put(self, key: str, now: int, platform: str, person: Person, level: str, line: dict[str, Any]) -> None:
        who = {
            "key": person.key,
            "identity": self._engine.parts.directory.identity(person),
            "login": person.login,
            "name": person.name,
            "level": level,
        }
        about: dict[str, Any] = {"key": key, "at": now, "platform": platform, "person": who}
        self._lines[key] = about | line | {"marks": [], "sending": {}}
        self._changed[key] = None
        while len(self._lines) > KEPT_LINES:
            old, _ = self._lines.popitem(last=False)
            self._changed.pop(old, None)
            self._messages.pop(old, None)

    def effect(self, number: int, body: dict[str, Any], status: str | None = None) -> None:
        """Something came of a message; `body` is the effect as it is stored."""
        if body["effect"] in ABOUT_PEOPLE:
            self._people += 1
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
        self._bench.lamps[platform] = {"lamp": lamp, "note": note}

    def lamps(self) -> dict[str, str]:
        """How each platform's connection stands."""
        return {platform: lamp["lamp"] for platform, lamp in self._bench.lamps.items()}

    def lamp_of(self, platform: str) -> tuple[str, str]:
        """How a platform's connection stands, with a note where there is one."""
        found = self._bench.lamp_of(platform)
        return found["lamp"], found["note"]

    def spoke_on(self, platform: str) -> bool:
        """Whether a line of the Gatekeeper's is shown from there."""
        lines = (line for line in self._lines.values() if "happening" not in line)
        return any(line["platform"] == platform and line["gatekeeper"] for line in lines)

    def forget(self, people: Iterable[str]) -> None:
        """Show nothing more that these people wrote; screens need a new snapshot then."""
        gone = set(people)
        for key in [key for key, line in self._lines.items() if line["person"]["key"] in gone]:
            del self._lines[key]
            self._changed.pop(key, None)
            self._messages.pop(key, None)

    def present(self, seats: Iterable[tuple[str, Iterable[str]]]) -> None:
        """Who is here, and the places in the settings that each of them is changing."""
        found: dict[str, set[str]] = {}
        for name, editing in seats:
            found.setdefault(name, set()).update(editing)
        self._present = sorted(found)
        self._editing = [{"name": name, "places": sorted(found[name])} for name in self._present if found[name]]

    def settings_changed(self) -> None:
        self._revision += 1

    def ledger_grew(self) -> None:
        self._ledger += 1

    def team_changed(self) -> None:
        self._team += 1

    def snapshot(self) -> dict[str, Any]:
        """Everything; later changes build on it."""
        return {"lines": list(self._lines.values()), "parts": dict(self._parts)}

    def take(self, now: int) -> list[Change]:
        """What changed since the last call."""
        changes: list[Change] = [{"line": self._lines[key]} for key in self._changed]
        self._changed.clear()
        self._times = [at for at in self._times if now - at < MINUTE]
        around = {
            "present": self._present,
            "editing": self._editing,
            "settings": self._revision,
            "team": self._team,
            "people": self._people,
            "ledger": self._ledger,
            "pace": len(self._times),
        }
        for name, value in (self._bench.parts(now) | around).items():
            if self._parts.get(name) != value:
                self._parts[name] = value
                changes.append({"part": name, "value": value})
        return changes

    def message(self, platform: str, id: str) -> Message | None:
        """A message that is shown."""
        found = self._messages.get(f"{platform} {id}")
        return found[0] if found else None
