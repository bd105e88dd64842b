"""When a rota posts (spec page 6). The same object serves live, replay and forecast.

A rota is *ready* from the moment at which all that it waits for has come: its clock (`due`), its lines, a platform
that is live, a notice that may be said. Ready rotas stand in one queue by that moment; only the head may post, and
only `spacing` after the last post of another rota. Rotas that are `alone` stand beside the queue.
"""

from __future__ import annotations

from gentlegate.core.commands.replies import aloud
from gentlegate.core.commands.runner import choose_reply, notice_text
from gentlegate.core.effects import Cause, Effect, Warned
from gentlegate.core.errors import ActError, TemplateProblem
from gentlegate.core.kit.model import Notice, Rota
from gentlegate.core.parts import Parts
from gentlegate.core.records import CommandRecord, PostRecord, RotaRecord
from gentlegate.core.rotas.order import can_post, candidates, next_date, taken, today, where
from gentlegate.core.text.folding import fold_name


class Rotas:
    """All rotas under one kit; clocks, places and rounds live in the state."""

    def __init__(self, parts: Parts, before: Rotas | None = None, now: int = 0) -> None:
        self._parts = parts
        self.rotas = parts.kit.rotas
        self._keys = [fold_name(rota.name) for rota in self.rotas]
        self._stepped: int = before._stepped if before else -1
        self._due: int | None = None
        self._due_holds = False
        if before:
            self._adapt(before, now)

    def _adapt(self, before: Rotas, now: int) -> None:
        """A changed rhythm counts from the last post, and never posts at once (rule 9)."""
        rhythms = {key: rota.every for key, rota in zip(before._keys, before.rotas, strict=True)}
        spacing = self._parts.kit.channel.spacing
        for key, rota in zip(self._keys, self.rotas, strict=True):
            record = self._parts.state.rotas.get(key)
            if record is None and self._parts.streams.now.phase in ("live", "gap"):
                first = rota.every if rota.first_after is None else max(rota.first_after, spacing)
                self._parts.state.rotas.put(key, RotaRecord(due=now + first))
            elif record and record.last is not None and rhythms.get(key, rota.every) != rota.every:
                due = max(record.last + rota.every, now + spacing)
                self._parts.state.rotas.edit(key).due = due
                self._parts.state.rotas.edit(key).ready = None

    def resume(self, now: int) -> None:
        """Whatever fell due before `now` is looked at once, at the next step."""
        self._stepped = max(self._stepped, now - 1)
        self._due_holds = False

    def record(self, rota: Rota) -> RotaRecord:
        """Where a rota stands; read only."""
        return self._parts.state.rotas.get(fold_name(rota.name)) or RotaRecord()

    def begin_stream(self, now: int) -> None:
        self._due_holds = False
        for key, rota in zip(self._keys, self.rotas, strict=True):
            record = self._parts.state.rotas.edit(key)
            record.due = now + (rota.every if rota.first_after is None else rota.first_after)
            record.lines = 0
            record.ready = None

    def end_stream(self, now: int) -> None:
        """The stream's end is established: the clocks for while we are away begin."""
        self._due_holds = False
        for key, rota in zip(self._keys, self.rotas, strict=True):
            record = self._parts.state.rotas.edit(key)
            record.due = None if rota.every_offline is None else now + rota.every_offline
            record.lines = 0
            record.ready = None

    def line(self, platform: str) -> None:
        """A line from a person that was not removed."""
        for key, rota in zip(self._keys, self.rotas, strict=True):
            if rota.platforms is None or platform in rota.platforms:
                self._parts.state.rotas.edit(key).lines += 1

    def platforms(self, rota: Rota) -> list[str]:
        """Where it would post now."""
        stream = self._parts.streams.now
        if stream.phase == "live":
            names = list(stream.live)
        elif stream.phase == "over" and rota.every_offline is not None:
            names = [n for n in self._parts.platform_names() if self._parts.abilities(n).offline_chat]
        else:
            return []
        return names if rota.platforms is None else [name for name in names if name in rota.platforms]

    def lines_missing(self, rota: Rota) -> int:
        live = self._parts.streams.now.phase != "over"
        return max(0, (rota.chat_lines if live else rota.offline_lines) - self.record(rota).lines)

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
        ahead = [self._released()]
        for rota in self.rotas:
            record = self.record(rota)
            if not rota.on or record.paused or record.due is None:
                continue
            ahead.append(record.due)
            if record.due <= self._stepped and record.ready is None:
                ahead.append(next_date(rota, self._stepped, self._parts.kit.channel.timezone))
        return min((at for at in ahead if at is not None and at > self._stepped), default=None)

    def _released(self) -> int | None:
        """When the head of the queue is no longer held back."""
        post = self._parts.state.post.get("post")
        if post is None or post.at is None:
            return None
        waiting = any(self.record(rota).ready is not None for rota in self.rotas if rota.on and not rota.alone)
        return post.at + self._parts.kit.channel.spacing if waiting else None

    def pause(self, rota: Rota, paused: bool, now: int) -> bool:
        """Pause a rota, beyond the stream too, or let it go on; False where it stood so before.

        Its clock runs on; after a pause it does not post sooner than the channel's spacing.
        """
        if self.record(rota).paused == paused:
            return False
        record = self._parts.state.rotas.edit(fold_name(rota.name))
        record.paused, record.ready = paused, None
        if not paused and record.due is not None:
            record.due = max(record.due, now + self._parts.kit.channel.spacing)
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

    def post_next(self, rota: Rota, now: int) -> list[Effect]:
        """Post the next notice now, whatever holds it back, and restart the clock."""
        return self._post(self.rotas.index(rota), now)

    def step(self, now: int) -> list[Effect]:
        """Post whatever may be posted at this moment."""
        self._stepped = max(now, self._stepped)
        effects: list[Effect] = []
        if not self.rotas:
            return effects
        self._mark_ready(now)
        while (index := self._head(now)) is not None:
            effects += self._post(index, now)
            self._mark_ready(now)
        return effects

    def _mark_ready(self, now: int) -> None:
        for index, rota in enumerate(self.rotas):
            record = self._parts.state.rotas.get(self._keys[index])
            if record is None:
                continue
            ready = self._is_ready(rota, record, now)
            if ready and record.ready is None:
                self._parts.state.rotas.edit(self._keys[index]).ready = now
                self._due_holds = False
            elif not ready and record.ready is not None:
                self._parts.state.rotas.edit(self._keys[index]).ready = None
                self._due_holds = False

    def _is_ready(self, rota: Rota, record: RotaRecord, now: int) -> bool:
        if not rota.on or record.paused or record.due is None or now < record.due or self.lines_missing(rota):
            return False
        platforms = self.platforms(rota)
        if not platforms:
            return False
        day = today(now, self._parts.kit.channel.timezone)
        return any(can_post(notice, platforms, day) for notice in rota.notices)

    def _head(self, now: int) -> int | None:
        """The rota to post now, if one may: in order of readiness, then of the list."""
        ready = [(r.ready, i) for i, rota in enumerate(self.rotas) if (r := self.record(rota)).ready is not None]
        first = True
        for _, index in sorted(ready):
            if self.rotas[index].alone or (first and self._is_free(index, now)):
                return index
            first = first and self.rotas[index].alone
        return None

    def _is_free(self, index: int, now: int) -> bool:
        """Whether the last post of another rota is long enough ago."""
        post = self._parts.state.post.get("post")
        if post is None or post.at is None or post.rota == self._keys[index]:
            return True
        return now >= post.at + self._parts.kit.channel.spacing

    def _post(self, index: int, now: int) -> list[Effect]:
        self._due_holds = False
        rota, key = self.rotas[index], self._keys[index]
        record = self._parts.state.rotas.edit(key)
        platforms = self.platforms(rota)
        day = today(now, self._parts.kit.channel.timezone)
        effects: list[Effect] = []
        said: list[Effect] = []
        for place in candidates(rota, record, platforms, day, self._parts):
            taken(rota, record, place)
            try:
                said = self._say(rota, rota.notices[place], platforms, now)
                break
            except TemplateProblem as error:
                about = f"rotas.{rota.name}.notices.{place}"
                effects.append(Warned(at=now, about=about, problem=str(error), cause=Cause("notice", rota.name)))
        rhythm = rota.every if self._parts.streams.live or rota.every_offline is None else rota.every_offline
        record.due = now + rhythm
        record.lines = 0
        record.ready = None
        if said:
            record.last = now
            if not rota.alone:
                self._parts.state.post.put("post", PostRecord(now, key))
        return [*effects, *said]

    def _say(self, rota: Rota, notice: Notice, platforms: list[str], now: int) -> list[Effect]:
        cause = Cause("notice", rota.name)
        said: list[Effect] = []
        template = self._template(notice)
        for name in where(notice, platforms):
            text = notice_text(self._parts, template, name, now, rota.name)
            said += aloud(text, name, self._parts.abilities(name), cause, now)
        return said

    def _template(self, notice: Notice) -> str:
        if notice.text is not None:
            return notice.text
        slot = self._parts.slots.get(fold_name(notice.command or ""))
        if slot is None or slot.command is None:
            raise TemplateProblem(f'the command "{notice.command}" is gone')
        record: CommandRecord = self._parts.state.commands.edit(slot.key)
        return choose_reply(self._parts, slot.command, record)
