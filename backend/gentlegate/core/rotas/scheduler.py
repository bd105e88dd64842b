"""When a rota posts (spec page 6). The same object serves live, replay and forecast.

A rota is *ready* from the moment at which all that it waits for has come: its clock (`due`), its lines, a platform
that is live, a notice that may be said. Ready rotas stand in one queue by that moment; only the head may post, and
only `spacing` after the last post of another rota. Rotas that are `alone` stand beside the queue.

Lines are counted once per platform for all rotas; each remembers where the counts stood at its last post.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace
from datetime import date
from typing import Any

from gentlegate.core.effects import Cause, Effect, Warned
from gentlegate.core.errors import ActError, TemplateProblem
from gentlegate.core.kit.model import Notice, Rota
from gentlegate.core.records import PostRecord, RotaRecord
from gentlegate.core.rotas.adapting import adapt
from gentlegate.core.rotas.order import can_post, candidates, midnight_after, next_date, taken, today, where
from gentlegate.core.rotas.surroundings import Surroundings, counts
from gentlegate.core.text.folding import fold_name

Say = Callable[[Rota, Notice, list[str], int], Sequence[Effect]]
"""Says a notice on these platforms; TemplateProblem where it cannot."""


class Rotas:
    """All rotas under one kit; clocks, places and rounds live in the state."""

    def __init__(self, around: Surroundings, say: Say, before: Rotas | None = None, now: int = 0) -> None:
        self._around = around
        self._say = say
        self.rotas = around.kit.rotas
        self._keys = [fold_name(rota.name) for rota in self.rotas]
        self._places = {key: index for index, key in enumerate(self._keys)}
        self._all = frozenset(self._places.values())
        self._alone = {index for index, rota in enumerate(self.rotas) if rota.alone}
        self._stepped: int = before._stepped if before else -1
        self._due: int | None = None
        self._due_holds = False
        self._waiting: list[int] = []
        self._day: tuple[int, int, date] | None = None
        self._seen: tuple[Any, ...] = ()
        if before:
            adapt(around, before.rotas, self.rotas, now)
        rows = around.state.rotas
        self._ready = {
            index: row.ready
            for index, key in enumerate(self._keys)
            if (row := rows.get(key)) is not None and row.ready is not None
        }

    def resume(self, now: int) -> None:
        """Whatever fell due before `now` is looked at once, at the next step."""
        self._stepped = max(self._stepped, now - 1)
        self._due_holds = False

    # The stream and its lines (rules 1, 2, 7)

    def begin_stream(self, now: int) -> None:
        self._restart(lambda rota: now + (rota.every if rota.first_after is None else rota.first_after))

    def end_stream(self, now: int) -> None:
        """The stream's end is established: the clocks for while we are away begin."""
        self._restart(lambda rota: None if rota.every_offline is None else now + rota.every_offline)

    def _restart(self, due: Callable[[Rota], int | None]) -> None:
        base = counts(self._around.state)
        for key, rota in zip(self._keys, self.rotas, strict=True):
            record = self._around.state.rotas.edit(key)
            record.due, record.lines, record.base, record.ready = due(rota), 0, dict(base), None
        self._ready.clear()
        self._due_holds = False

    def line(self, platform: str) -> None:
        """A line from a person that was not removed."""
        self._around.state.lines.edit(platform).count += 1

    def _lines(self, rota: Rota, record: RotaRecord) -> int:
        """Lines on its platforms since its last post."""
        counted, base = record.lines, record.base
        for platform, row in self._around.state.lines.items():
            if rota.platforms is None or platform in rota.platforms:
                counted += row.count - base.get(platform, 0)
        return counted

    def _missing(self, rota: Rota, record: RotaRecord) -> int:
        wanted = rota.offline_lines if self._around.streams.now.phase == "over" else rota.chat_lines
        return max(0, wanted - self._lines(rota, record)) if wanted else 0

    # What others ask

    @property
    def _spacing(self) -> int:
        return self._around.kit.channel.spacing

    def record(self, rota: Rota) -> RotaRecord:
        """Where a rota stands; read only."""
        return self._around.state.rotas.get(fold_name(rota.name)) or RotaRecord()

    def lines_missing(self, rota: Rota) -> int:
        return self._missing(rota, self.record(rota))

    def platforms(self, rota: Rota) -> list[str]:
        """Where it would post now."""
        stream = self._around.streams.now
        if stream.phase == "live":
            names = list(stream.live)
        elif stream.phase == "over" and rota.every_offline is not None:
            names = [n for n in self._around.platform_names() if self._around.abilities(n).offline_chat]
        else:
            return []
        return names if rota.platforms is None else [name for name in names if name in rota.platforms]

    def held_until(self) -> int | None:
        """Until when the last post holds others back; None where nothing was posted."""
        post = self._around.state.post.get("post")
        return None if post is None or post.at is None else post.at + self._spacing

    def paused(self) -> list[Rota]:
        return [rota for rota in self.rotas if self.record(rota).paused]

    def pause(self, rota: Rota, paused: bool, now: int) -> bool:
        """Pause a rota, beyond the stream too, or let it go on; False where it stood so before.

        Its clock runs on; after a pause it does not post sooner than the channel's spacing.
        """
        if self.record(rota).paused == paused:
            return False
        record = self._around.state.rotas.edit(fold_name(rota.name))
        record.paused, record.ready = paused, None
        self._ready.pop(self.rotas.index(rota), None)
        if not paused and record.due is not None:
            record.due = max(record.due, now + self._spacing)
        self._due_holds = False
        return True

    def wanted_next(self, rota: Rota | None) -> Rota:
        """The rota that would post now if asked: this one, or the one due first. ActError where none can."""
        chosen = [rota] if rota else [one for one in self.rotas if one.on and not self.record(one).paused]
        if not chosen or not chosen[0].on or self.record(chosen[0]).paused:
            raise ActError("this rota is off" if rota else "every rota is off", "disabled")
        first = min(chosen, key=lambda one: (self.record(one).due is None, self.record(one).due or 0))
        if not self.platforms(first):
            raise ActError("nothing is live, so it cannot post", "offline")
        return first

    def next_notice(self, rota: Rota, now: int) -> Notice | None:
        """The notice that comes next if it posted now; nothing is moved by looking."""
        platforms = self.platforms(rota) or self._around.platform_names()
        record = replace(self.record(rota))
        places = candidates(rota, record, platforms, self._today(now), self._around.chance)
        return rota.notices[places[0]] if places else None

    def post_next(self, rota: Rota, now: int) -> list[Effect]:
        """Post the next notice now, whatever holds it back, and restart the clock."""
        return self._post(self.rotas.index(rota), now)

    # Time

    def due(self) -> int | None:
        """The next moment at which something may change by time alone, later than the last step.

        It is worked out anew only after something moved it: most messages do not.
        """
        if not self._due_holds or (self._due is not None and self._due <= self._stepped):
            self._due = self._next_due()
            self._due_holds = True
        return self._due

    @property
    def settled(self) -> bool:
        """Whether nothing has moved the next due moment since it was worked out."""
        return self._due_holds

    def _next_due(self) -> int | None:
        released, stepped = self._released(), self._stepped
        soonest = released if released is not None and released > stepped else None
        rows, self._waiting = self._around.state.rotas, []
        for index in self._all - self._ready.keys():
            record = rows.get(self._keys[index])
            if record is None or record.due is None or record.paused or not self.rotas[index].on:
                continue
            due: int | None = record.due
            if record.due <= stepped:
                self._waiting.append(index)
                due = next_date(self.rotas[index], stepped, self._around.kit.channel.timezone)
            if due is not None and (soonest is None or due < soonest):
                soonest = due
        return soonest

    def _released(self) -> int | None:
        """When the head of the queue is no longer held back."""
        return self.held_until() if any(not self.rotas[index].alone for index in self._ready) else None

    def step(self, now: int) -> list[Effect]:
        """Post whatever may be posted at this moment."""
        self._stepped = max(now, self._stepped)
        effects: list[Effect] = []
        if not self.rotas:
            return effects
        self._mark_ready(now)
        while (index := self._head(now)) is not None:
            effects += self._post(index, now)
        return effects

    @property
    def anyone_waits(self) -> bool:
        """Whether a rota's clock is over and it has not become ready."""
        self.due()
        return bool(self._waiting)

    def waiting_for_lines(self) -> list[tuple[Rota, int]]:
        """The rotas whose clock is over and whose lines are not complete, with how many are missing."""
        self.due()
        found = []
        for index in self._waiting:
            rota, record = self.rotas[index], self._around.state.rotas.get(self._keys[index])
            if record is not None and (missing := self._missing(rota, record)):
                found.append((rota, missing))
        return found

    def _mark_ready(self, now: int) -> None:
        """Note who has become ready, and who no longer is; the latter only where something but time has moved."""
        stream, day = self._around.streams.now, self._today(now)
        seen = (stream.phase, tuple(stream.live), day)
        moved, self._seen = seen != self._seen, seen
        rows = self._around.state.rotas
        quiet = self._due_holds and (self._due is None or now < self._due)
        for index in self._all if moved else list(self._waiting) if quiet else self._all - self._ready.keys():
            key = self._keys[index]
            record = rows.get(key)
            if record is None or record.due is None or (record.ready is None and record.due > now):
                continue
            ready = self._is_ready(self.rotas[index], record, now, day)
            if ready != (record.ready is not None):
                rows.edit(key).ready = now if ready else None
                self._due_holds = False
            if record.ready is None:
                self._ready.pop(index, None)
            else:
                self._ready[index] = record.ready

    def _is_ready(self, rota: Rota, record: RotaRecord, now: int, day: date) -> bool:
        if not rota.on or record.paused or record.due is None or now < record.due or self._missing(rota, record):
            return False
        platforms = self.platforms(rota)
        return bool(platforms) and any(can_post(notice, platforms, day) for notice in rota.notices)

    def _today(self, now: int) -> date:
        """The day in the channel's zone, worked out once a day."""
        if self._day is None or not self._day[0] <= now < self._day[1]:
            zone = self._around.kit.channel.timezone
            day = today(now, zone)
            self._day = (now, midnight_after(day, zone), day)
        return self._day[2]

    def _head(self, now: int) -> int | None:
        """The rota to post now, if one may: in order of readiness, then of the list."""
        if not self._ready or self._all_held(now):
            return None
        queue = [(moment, index) for index, moment in self._ready.items() if index not in self._alone]
        beside = [(self._ready[index], index) for index in self._alone if index in self._ready]
        heads = [min(beside)] if beside else []
        if queue and self._is_free(min(queue)[1], now):
            heads.append(min(queue))
        return min(heads)[1] if heads else None

    def _all_held(self, now: int) -> bool:
        """Whether the last post holds back everything that is ready; it does not hold back its own rota."""
        post = self._around.state.post.get("post")
        if post is None or post.at is None or now >= post.at + self._spacing or self._alone & self._ready.keys():
            return False
        return self._places.get(post.rota or "") not in self._ready

    def _is_free(self, index: int, now: int) -> bool:
        """Whether the last post of another rota is long enough ago."""
        post = self._around.state.post.get("post")
        if post is None or post.at is None or post.rota == self._keys[index]:
            return True
        return now >= post.at + self._spacing

    def _post(self, index: int, now: int) -> list[Effect]:
        self._due_holds = False
        rota, key = self.rotas[index], self._keys[index]
        record = self._around.state.rotas.edit(key)
        platforms = self.platforms(rota)
        effects: list[Effect] = []
        said: Sequence[Effect] = []
        for place in candidates(rota, record, platforms, self._today(now), self._around.chance):
            taken(rota, record, place)
            notice = rota.notices[place]
            try:
                said = self._say(rota, notice, where(notice, platforms), now)
                break
            except TemplateProblem as error:
                about = f"rotas.{rota.name}.notices.{place}"
                effects.append(Warned(at=now, about=about, problem=str(error), cause=Cause("notice", rota.name)))
        live = self._around.streams.now.phase == "live"
        record.due = now + (rota.every if live or rota.every_offline is None else rota.every_offline)
        record.lines, record.base, record.ready = 0, counts(self._around.state), None
        self._ready.pop(index, None)
        if said:
            record.last = now
            if not rota.alone:
                self._around.state.post.put("post", PostRecord(now, key))
        return [*effects, *said]
