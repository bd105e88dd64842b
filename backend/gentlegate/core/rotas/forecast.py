"""What the rotas will post, worked out ahead by the scheduler itself under an imagined chat.

Nothing is said and nothing is touched: the scheduler runs on a copy of its clocks, and jumps from one moment that
matters (a clock, a release, the line that completes what a rota waits for) to the next.
"""

from __future__ import annotations

import random
from collections.abc import Iterable, Mapping, Sequence
from copy import deepcopy
from dataclasses import dataclass
from typing import Any

from gentlegate.core.effects import Effect
from gentlegate.core.errors import TemplateProblem
from gentlegate.core.events import StreamChange
from gentlegate.core.kit.model import Kit, Notice, Rota
from gentlegate.core.platforms import Abilities
from gentlegate.core.records import StreamRecord
from gentlegate.core.rotas.pace import Pace
from gentlegate.core.rotas.scheduler import Rotas
from gentlegate.core.state import State
from gentlegate.core.streams import Streams
from gentlegate.core.text.folding import fold_name

MOST_POSTS = 20_000


@dataclass(frozen=True, slots=True)
class Post:
    """One notice, by its place in the rota, said on these platforms at a moment."""

    at: int
    rota: str
    notice: int
    platforms: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Heard(Effect):
    """Stands for what a forecast would say."""


class Imagined:
    """A stream as the scheduler sees it, with nobody behind it."""

    def __init__(
        self,
        kit: Kit,
        abilities: Mapping[str, Abilities],
        state: State,
        seed: int,
        before: Rotas | None = None,
        now: int = 0,
    ) -> None:
        self.kit = kit
        self.state = state
        self.streams = Streams(state, kit.channel.stream_gap)
        self.said: list[Post] = []
        self._abilities = abilities
        self._seed = seed
        self._commands = {fold_name(command.name) for command in kit.commands}
        self._places = {id(notice): place for rota in kit.rotas for place, notice in enumerate(rota.notices)}
        self.rotas = Rotas(self, self._say, before, now)

    def platform_names(self) -> list[str]:
        return sorted(self._abilities)

    def abilities(self, platform: str) -> Abilities:
        return self._abilities.get(platform, Abilities())

    def chance(self, *about: Any) -> random.Random:
        return random.Random("|".join(str(part) for part in (self._seed, *about)))

    def _say(self, rota: Rota, notice: Notice, platforms: list[str], now: int) -> Sequence[Effect]:
        if notice.command is not None and fold_name(notice.command) not in self._commands:
            raise TemplateProblem(f'the command "{notice.command}" is gone')
        self.said.append(Post(now, rota.name, self._places[id(notice)], tuple(platforms)))
        return [Heard(at=now)]


def copied(state: State) -> State:
    """A state with the rotas' clocks, lines and posts, and the stream; all that a forecast moves."""
    found = State()
    for name in ("rotas", "lines", "post", "stream", "platforms"):
        there, here = getattr(state, name), getattr(found, name)
        for key, record in there.items():
            here.put(key, deepcopy(record))
    return found


def from_now(
    kit: Kit,
    abilities: Mapping[str, Abilities],
    state: State,
    seed: int,
    now: int,
    until: int,
    pace: Pace,
    shares: Mapping[str, float],
    before: Kit | None = None,
) -> list[Post]:
    """The posts of the stream that is on, or of one that began now where none is.

    `shares` say how chat is spread over the platforms; `before` are the settings that hold now, where `kit` differs.
    """
    own = copied(state)
    if own.stream.get("stream") is None or own.stream.edit("stream").phase != "live":
        _imagine_stream(own, abilities, now)
        imagined = Imagined(kit, abilities, own, seed)
        imagined.rotas.begin_stream(now)
    else:
        held = Imagined(before, abilities, own, seed).rotas if before else None
        imagined = Imagined(kit, abilities, own, seed, held, now)
    began = imagined.streams.now.began
    counted = {name: record.count for name, record in own.lines.items()}
    chat = _Chat(pace, began, now, shares, counted)
    imagined.rotas.resume(now)
    moment: int | None = now
    while moment is not None and moment <= until:
        chat.count(own, moment - 1)
        imagined.rotas.step(moment)
        # A clock that is over comes before the line of the same moment.
        if chat.count(own, moment) and imagined.rotas.anyone_waits:
            imagined.rotas.step(moment)
        if len(imagined.said) > MOST_POSTS:
            break
        moment = min(
            (at for at in (imagined.rotas.due(), chat.completes(imagined.rotas, moment)) if at is not None),
            default=None,
        )
    return imagined.said


def _imagine_stream(state: State, abilities: Mapping[str, Abilities], now: int) -> None:
    before = state.stream.get("stream") or StreamRecord()
    live = sorted(abilities)
    state.stream.put("stream", StreamRecord(phase="live", number=before.number + 1, began=now, live=live))
    for name, _ in list(state.post.items()):
        state.post.drop(name)


class _Chat:
    """Lines that come at a pace, spread over the platforms."""

    def __init__(
        self, pace: Pace, began: int, now: int, shares: Mapping[str, float], counted: Mapping[str, int]
    ) -> None:
        self._pace = pace
        self._began = began
        self._shares = shares
        came = self._came(now)
        self._base = {name: counted.get(name, 0) - came[name] for name in shares}

    def _came(self, at: int) -> dict[str, int]:
        """Whole lines by platform since the stream began."""
        lines = self._pace.lines(at - self._began)
        return {name: int(lines * share + 1e-9) for name, share in self._shares.items()}

    def count(self, state: State, at: int) -> bool:
        """Let the platforms' counts stand where they stand at this moment; whether any has moved."""
        moved = False
        for platform, came in self._came(at).items():
            record, count = state.lines.edit(platform), self._base[platform] + came
            moved = moved or record.count != count
            record.count = count
        return moved

    def completes(self, rotas: Rotas, now: int) -> int | None:
        """When the first rota that waits for lines has them all."""
        waiting = rotas.waiting_for_lines()
        return min((at for one, n in waiting if (at := self._after(one, n, now)) is not None), default=None)

    def _after(self, rota: Rota, missing: int, now: int) -> int | None:
        """When so many lines more will have come on the rota's platforms."""
        names = [name for name in self._shares if rota.platforms is None or name in rota.platforms]
        came = self._came(now)
        wanted = sum(came[name] for name in names) + missing
        at: int | None = now
        while at is not None:
            came = self._came(at)
            left = wanted - sum(came[name] for name in names)
            if left <= 0:
                return at
            at = self._next_line(names, at, left)
        return None

    def _next_line(self, names: list[str], at: int, missing: int) -> int | None:
        """A later moment, not later than the missing lines: near them at once, then line by line."""
        together = sum(self._shares[name] for name in names)
        if together <= 0:
            return None
        surely = missing - len(names)  # a line may be all but complete on each platform
        if surely > 0:
            offset = self._pace.offset(self._pace.lines(at - self._began) + surely / together)
            if offset is None or self._began + offset > at:
                return None if offset is None else self._began + offset
        came = self._came(at)
        nexts = (
            self._pace.offset((came[name] + 1) / self._shares[name]) for name in names if self._shares[name] > 0
        )
        return min((self._began + offset for offset in nexts if offset is not None), default=None)


def of_recorded(
    kit: Kit, abilities: Mapping[str, Abilities], seed: int, events: Iterable[tuple[int, str | StreamChange]]
) -> list[Post]:
    """The posts that these rotas would have made over a recorded stream.

    `events` are its lines that count, by platform, and its changes of the stream, in order.
    """
    imagined = Imagined(kit, abilities, State(), seed)
    rotas, streams = imagined.rotas, imagined.streams
    for at, event in events:
        _advance(imagined, at)
        if isinstance(event, str):
            rotas.line(event)
        elif streams.change(event, at):
            rotas.begin_stream(at)
        rotas.step(at)
    return imagined.said


def _advance(imagined: Imagined, now: int) -> None:
    rotas, streams = imagined.rotas, imagined.streams
    while due := min((at for at in (rotas.due(), streams.due()) if at is not None and at <= now), default=None):
        if streams.due() == due:
            streams.end_gap()
            rotas.end_stream(due)
        rotas.step(due)
