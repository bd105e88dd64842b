"""The one door to the rules: events in, effects out. It calls nobody and has no clock.

Between two events, whatever falls due by time alone (a rota's post, the end of a stream's gap) happens at its own
exact moment, before an event of the same moment.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from gentlegate.core.commands.runner import run_command
from gentlegate.core.counters import moved_effects
from gentlegate.core.desk import carry_out_act
from gentlegate.core.effects import Cause, Effect, SettingChanged, Verdict
from gentlegate.core.events import DeskAct, Event, Happening, Message, StreamChange
from gentlegate.core.judge.carry_out import carry_out
from gentlegate.core.kit import edit
from gentlegate.core.kit.load import load_kit
from gentlegate.core.moments import SECOND
from gentlegate.core.parts import Parts
from gentlegate.core.platforms import Abilities
from gentlegate.core.rotas.scheduler import Rotas
from gentlegate.core.state import State

ANSWERED_WITHIN = 60 * SECOND


class Engine:
    """Gentle Gate's engine under one kit (a checked document); the same object for live, replay and try-out."""

    def __init__(
        self,
        document: dict[str, Any] | None = None,
        *,
        seed: int = 0,
        state: State | None = None,
        platforms: Mapping[str, Abilities] | None = None,
        every_verdict: bool = False,
    ) -> None:
        self.state = state or State()
        self.now = 0
        self._seed = seed
        self._declared = dict(platforms or {})
        self._every_verdict = every_verdict
        self._rotas: Rotas | None = None
        self.apply(document or {})

    def apply(self, document: dict[str, Any]) -> None:
        """Take a new kit into use. KitError if it cannot be; then the old one stays."""
        kit = load_kit(document)
        self.document = document
        self.parts = Parts(kit, self.state, self._seed, self._declared)
        self._rotas = Rotas(self.parts, self._rotas, self.now)

    @property
    def rotas(self) -> Rotas:
        assert self._rotas is not None
        return self._rotas

    def next_due(self) -> int | None:
        """The next moment at which something happens by time alone."""
        ahead = [at for at in (self.parts.streams.due(), self.rotas.due()) if at is not None]
        return min(ahead, default=None)

    def advance(self, now: int) -> list[Effect]:
        """Let time pass up to and including `now`."""
        effects: list[Effect] = []
        while (due := self.next_due()) is not None and due <= now:
            if self.parts.streams.due() == due:
                self.parts.streams.end_gap()
                self.rotas.end_stream(due)
            effects += self.rotas.step(due)
        self.now = max(now, self.now)
        return effects

    def resume(self, now: int) -> None:
        """Go on after a pause in which nobody looked at the clock: what was missed meanwhile does not pile up."""
        self.now = max(now, self.now)
        self.rotas.resume(now)

    def handle(self, event: Event, now: int | None = None) -> list[Effect]:
        """What an event leads to, at `now` (its own time if left out). ActError and KitError change nothing."""
        now = event.at if now is None else now
        effects = self.advance(now)
        if isinstance(event, Message):
            effects += self._message(event, now)
        elif isinstance(event, StreamChange):
            effects += self._stream(event, now)
        elif isinstance(event, DeskAct):
            effects += self._desk(event, now)
        elif isinstance(event, Happening) and event.what == "follow":
            self.state.people.edit(self.parts.directory.identity(event.person)).follows = True
        return effects + self.rotas.step(now)

    def _message(self, message: Message, now: int) -> list[Effect]:
        parts = self.parts
        directory = parts.directory
        person = message.person
        if parts.state.platforms.get(message.platform) is None:
            parts.state.platforms.edit(message.platform)
        if directory.holds(directory.gatekeeper, person) or directory.holds(directory.ignored, person):
            return [self._unjudged(message, now)] if self._every_verdict else []
        identity = directory.identity(person)
        level = parts.level(person)
        heard = parts.ear.hear(message.text, message.reply_to is not None)
        judgement = parts.judge.judge(
            message,
            now,
            identity=identity,
            level=level,
            live=parts.streams.live,
            body=heard.body if heard else 0,
        )
        effects: list[Effect] = []
        if judgement.matched or self._every_verdict:
            effects.append(judgement.verdict)
        if judgement.verdict.outcome != "allow":
            return effects + carry_out(parts, judgement, message, identity, level, now)
        self.rotas.line(message.platform)
        if heard and now - message.at <= ANSWERED_WITHIN:
            effects += run_command(parts, heard, message, level, identity, now)
        return effects

    @staticmethod
    def _unjudged(message: Message, now: int) -> Verdict:
        return Verdict(
            at=now,
            platform=message.platform,
            message=message.id,
            outcome="allow",
            seconds=None,
            filter=None,
            reasons=(),
            exempt=(),
            strikes=0,
        )

    def _stream(self, event: StreamChange, now: int) -> list[Effect]:
        if not self.parts.streams.change(event, now):
            return []
        moved = self.parts.counters.begin_stream()
        self.rotas.begin_stream(now)
        return [effect for one in moved for effect in moved_effects(one, None, now)]

    def _desk(self, act: DeskAct, now: int) -> list[Effect]:
        if act.do != "setting":
            return carry_out_act(self.parts, act, now)
        path, value = str(act.values.get("path", "")), act.values.get("value")
        before = edit.read(self.document, path)
        self.apply(edit.write(self.document, path, value))
        return [
            SettingChanged(at=now, path=path, before=before, after=value, by=act.by, cause=Cause("desk", "setting"))
        ]
