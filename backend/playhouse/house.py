"""What every stand-in platform has: a channel that is live or not, lines, people shut out, and who is told."""

from __future__ import annotations

import asyncio
import time
from collections import deque
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from playhouse.directory import channels, people

KEPT_LINES = 2000
GATEKEEPER = "gatekeeper"


@dataclass(slots=True)
class Line:
    """One line of chat; `n` is its place in the platform's own order of happenings."""

    n: int
    id: str
    at: float
    login: str
    name: str
    uid: str
    badges: list[str]
    text: str
    emotes: list[list[int]] = field(default_factory=list)
    action: bool = False
    reply_to: str | None = None
    private_to: str | None = None
    removed: bool = False
    removed_at: float | None = None


class Refusal(Exception):
    """The platform says no: `status` is HTTP's, `after` when to try again, in seconds."""

    def __init__(self, status: int, reason: str, after: float | None = None) -> None:
        super().__init__(reason)
        self.status = status
        self.reason = reason
        self.after = after


class Platform:
    """One stand-in platform. `rate` is how many sends it takes in how many seconds."""

    def __init__(self, name: str, token: str, rate: tuple[int, float], moderator_rate: tuple[int, float]) -> None:
        self.name = name
        self.token = token
        self.live = False
        self.title = ""
        self.category = ""
        self.rights = True
        self.broken = False
        self.followers_only = False
        self.talked: set[str] = set()
        self.names: dict[str, str] = {login: login for login in people(name)}
        """Everybody who has an account here: log-in and shown name."""
        self.shown = "Gatekeeper"
        """What the Gatekeeper is called here."""
        self.lines: deque[Line] = deque(maxlen=KEPT_LINES)
        self.happenings: deque[dict[str, Any]] = deque(maxlen=KEPT_LINES)
        self.shut_out: dict[str, float] = {}
        self.acts: dict[str, dict[str, Any]] = {}
        self.categories: list[str] | None = None
        """The directory; None where any category is taken."""
        self.channels = channels(name)
        self.ad_until = 0.0
        self.trusting = ""
        """What the broadcaster types to make the Gatekeeper a moderator."""
        self._rate, self._moderator_rate = rate, moderator_rate
        self._sends: deque[float] = deque()
        self._n = time.time_ns() // 1_000_000  # so that numbers grow over restarts as well
        self._listeners: set[Callable[[dict[str, Any]], None]] = set()
        self.changed = asyncio.Condition()

    @property
    def n(self) -> int:
        """The number of the newest happening."""
        return self._n

    def uid(self, login: str) -> str:
        """The platform's own mark for a person, steady by login, also over restarts."""
        return f"u-{login.casefold()}"

    def login_of(self, uid: str) -> str:
        return uid.removeprefix("u-")

    def listen(self, listener: Callable[[dict[str, Any]], None]) -> Callable[[], None]:
        """Be told of everything that happens; returns the way to stop."""
        self._listeners.add(listener)
        return lambda: self._listeners.discard(listener)

    def tell(self, what: str, **values: Any) -> dict[str, Any]:
        self._n += 1
        happening = {"n": self._n, "what": what, **values}
        self.happenings.append(happening)
        for listener in list(self._listeners):
            listener(happening)
        return happening

    def go(self, live: bool, title: str | None = None, category: str | None = None) -> None:
        self.live = live
        self.title = self.title if title is None else title
        self.category = self.category if category is None else category
        self.tell("channel")

    def give_rights(self, rights: bool) -> None:
        self.rights = rights
        self.tell("rights")

    def say(self, login: str, text: str, **values: Any) -> Line:
        """A line by anyone. Refusal where the person is shut out."""
        until = self.shut_out.get(login.casefold())
        if until is not None and until > time.time():
            raise Refusal(403, f"{login} is timed out")
        if text.strip().casefold() == self.trusting and "broadcaster" in (values.get("badges") or []):
            self.give_rights(True)
        known = login.casefold() in self.talked
        if self.followers_only and not known and not values.get("badges"):
            raise Refusal(403, "only followers may talk now")
        self.talked.add(login.casefold())
        self.names[login.casefold()] = values.get("name") or login
        line = Line(
            n=self._n + 1,
            id=values.pop("id", None) or f"{self.name[0]}{self._n + 1:x}",
            at=values.pop("at", None) or time.time(),
            login=login,
            name=values.pop("name", None) or login,
            uid=self.uid(login),
            badges=values.pop("badges", None) or [],
            text=text,
            **values,
        )
        self.lines.append(line)
        self.tell("line", line=line)
        return line

    def line(self, id: str) -> Line:
        for line in reversed(self.lines):
            if line.id == id:
                return line
        raise Refusal(404, "no such line")

    def once(self, key: str, act: Callable[[], dict[str, Any]]) -> dict[str, Any]:
        """Carry out an act of the Gatekeeper, but only the first time its key comes."""
        if key in self.acts:
            return self.acts[key]
        if self.broken:
            raise Refusal(503, "the platform has trouble")
        self._within_rate()
        self.acts[key] = act()
        return self.acts[key]

    def _within_rate(self) -> None:
        count, seconds = self._moderator_rate if self.rights else self._rate
        now = time.monotonic()
        while self._sends and self._sends[0] <= now - seconds:
            self._sends.popleft()
        if len(self._sends) >= count:
            raise Refusal(429, "too many at once", after=self._sends[0] + seconds - now)
        self._sends.append(now)

    def need_rights(self) -> None:
        if not self.rights:
            raise Refusal(403, "the Gatekeeper is no moderator here")

    def remove(self, id: str, removed: bool = True) -> dict[str, Any]:
        self.need_rights()
        line = self.line(id)
        line.removed = removed
        line.removed_at = time.time() if removed else None
        self.tell("gone" if removed else "back", line=line)
        return {"id": id, "removed": removed}

    def remove_by(self, id: str, login: str) -> dict[str, Any]:
        """A person who moderates here removes a line; the Gatekeeper is told."""
        line = self.line(id)
        line.removed, line.removed_at = True, time.time()
        self.tell("gone", line=line, by=login)
        return {"id": id, "removed": True}

    def only_followers(self, on: bool) -> dict[str, Any]:
        self.need_rights()
        self.followers_only = on
        self.tell("followers", on=on)
        return {"followers_only": on}

    def shut(self, uid: str, seconds: float | None) -> dict[str, Any]:
        """A timeout, or a ban where `seconds` is None."""
        self.need_rights()
        login = self.login_of(uid)
        self.shut_out[login] = float("inf") if seconds is None else time.time() + seconds
        self.tell("shut", login=login, seconds=seconds)
        return {"uid": uid, "seconds": seconds}

    def free(self, uid: str) -> dict[str, Any]:
        self.need_rights()
        login = self.login_of(uid)
        self.shut_out.pop(login, None)
        self.tell("free", login=login)
        return {"uid": uid}

    def set_title(self, title: str, limit: int) -> dict[str, Any]:
        self.need_rights()
        if len(title) > limit:
            raise Refusal(422, f"a title has at most {limit} characters")
        self.go(self.live, title=title)
        return {"title": title}

    def set_category(self, category: str) -> dict[str, Any]:
        self.need_rights()
        if self.categories is not None and category not in self.categories:
            raise Refusal(422, "no such category")
        self.go(self.live, category=category)
        return {"category": category}

    def person(self, login: str) -> dict[str, Any]:
        """Somebody who has an account here. Refusal where nobody has this log-in."""
        found = self.names.get(login.casefold())
        if found is None:
            raise Refusal(404, "nobody has this log-in")
        return {"uid": self.uid(login), "login": login.casefold(), "name": found}

    def call(self, shown: str, limit: int) -> str:
        """Give the Gatekeeper another shown name."""
        if self.broken:
            raise Refusal(503, "the platform has trouble")
        if not 2 <= len(shown.strip()) <= limit:
            raise Refusal(422, f"a name has 2 to {limit} characters")
        self.shown = shown.strip()
        return self.shown

    def channel(self, login: str) -> dict[str, Any]:
        """A channel of the directory, by log-in or name. Refusal where there is none."""
        wanted = login.casefold()
        for entry in self.channels:
            if wanted in (entry["login"].casefold(), entry["name"].casefold()):
                return entry
        raise Refusal(404, "no such channel")

    def mark(self, note: str) -> dict[str, Any]:
        self.need_live()
        self.tell("marker", note=note)
        return {"marked": True}

    def clip(self) -> dict[str, Any]:
        self.need_live()
        link = f"https://{self.name}.example/clips/{self._n + 1:x}"
        self.tell("clip", link=link)
        return {"link": link}

    def ad(self, seconds: int, lengths: tuple[int, ...]) -> dict[str, Any]:
        self.need_rights()
        self.need_live()
        if seconds not in lengths:
            raise Refusal(422, f"one of {lengths}")
        self.ad_until = time.time() + seconds
        self.tell("ad", seconds=seconds)
        return {"seconds": seconds}

    def send_to(self, what: str, login: str) -> dict[str, Any]:
        """A raid or shoutout to a channel."""
        self.need_rights()
        self.need_live()
        entry = self.channel(login)
        self.tell(what, target=entry["login"])
        return {what: entry["login"]}

    def need_live(self) -> None:
        if not self.live:
            raise Refusal(409, "the channel is not live")

    def happen(
        self, what: str, login: str, amount: float | None, text: str | None, name: str | None = None
    ) -> dict[str, Any]:
        """A follow, subscription, gift, tip or raid by anyone."""
        self.talked.add(login.casefold())
        who = {"login": login, "name": name or login, "uid": self.uid(login)}
        happening = {"of": what, **who, "amount": amount, "text": text}
        return {"n": self.tell("happening", **happening)["n"]}

    @property
    def viewers(self) -> int:
        """How many watch: as many as talked lately, and some who never do."""
        talking = len({line.login for line in list(self.lines)[-200:]})
        return talking * 3 if self.live else 0

    def speak(self, text: str, limit: int, **values: Any) -> dict[str, Any]:
        """A line by the Gatekeeper."""
        if len(text) > limit:
            raise Refusal(422, f"a line has at most {limit} characters")
        badges = ["moderator", "bot"] if self.rights else ["bot"]
        line = self.say(GATEKEEPER, text, name=self.shown, badges=badges, **values)
        return {"id": line.id}
