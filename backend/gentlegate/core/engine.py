"""The one door to the rules: events in, effects out. It calls nobody and has no clock.

Between two events, whatever falls due by time alone (a rota's post, the end of a stream's gap) happens at its own
exact moment, before an event of the same moment.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from gentlegate.core import overlaps, tonight
from gentlegate.core.changes import Changes
from gentlegate.core.commands.replies import aloud
from gentlegate.core.commands.runner import run_command, run_cue
from gentlegate.core.counters import moved_effects
from gentlegate.core.desk import carry_out_act
from gentlegate.core.effects import Cause, Effect, Verdict
from gentlegate.core.events import Answer, DeskAct, Event, Happening, Message, Person, Removal, StreamChange
from gentlegate.core.judge import drawbridge, passes, second_look, tally
from gentlegate.core.judge.carry_out import carry_out
from gentlegate.core.judge.judge import KNOWN, Judgement, Sight
from gentlegate.core.judge.ladder import standing
from gentlegate.core.kit.edit import Document
from gentlegate.core.kit.model import Kit
from gentlegate.core.moments import SECOND
from gentlegate.core.parts import Parts
from gentlegate.core.people import linking
from gentlegate.core.people.seen import badges_changed, seen_as
from gentlegate.core.platforms import Abilities
from gentlegate.core.records import AskRecord
from gentlegate.core.rotas.scheduler import Rotas
from gentlegate.core.rotas.voice import Voice
from gentlegate.core.state import State
from gentlegate.core.stream import arrivals, asks, happenings, raids
from gentlegate.core.stream.finishing import FINISH

ANSWERED_WITHIN = 60 * SECOND
FOR_EVER = 1 << 62


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
        can_ask: bool = False,
    ) -> None:
        self.state = state or State()
        self.now = 0
        self._quiet_until: int | None = None
        """Before this moment time alone brings nothing; None where that has to be worked out anew."""
        self._seed = seed
        self.declared = dict(platforms or {})
        self._every_verdict = every_verdict
        self._can_ask = can_ask
        self.rotas: Rotas
        self.changes = Changes(self.state, self._use)
        self.changes.apply(document or {})

    def declare(self, platform: str, abilities: Abilities) -> None:
        """A platform is known from now on, with what it can do."""
        self.declared[platform] = abilities
        self._use(self.parts.kit)

    @property
    def document(self) -> Document:
        """The channel's own settings."""
        return self.changes.document

    @property
    def effective(self) -> Document:
        """The settings as they hold now, with tonight's changes over them."""
        return self.changes.effective

    def _use(self, kit: Kit) -> None:
        """Make the parts anew under a changed kit; what is remembered stays."""
        before = getattr(self, "parts", None)
        self.parts = Parts(kit, self.state, self._seed, self.declared)
        if before is not None and before.directory.groups != self.parts.directory.groups:
            linking.rehome(self.state, before.directory, self.parts.directory)
        self._quiet_until = None
        self.rotas = Rotas(self.parts, Voice(self.parts), getattr(self, "rotas", None), self.now)
        self.parts.rotas = self.rotas
        self.parts.changes = self.changes
        self.parts.can_ask = self._can_ask
        self.parts.finish = self._finish

    def _finish(self, record: AskRecord, now: int) -> list[Effect]:
        return FINISH[record.then](self.parts, record, now)

    def next_due(self) -> int | None:
        """The next moment at which something happens by time alone."""
        due = self.rotas.due()
        others = (
            self.parts.streams.due(),
            drawbridge.due(self.parts),
            raids.due(self.parts),
            arrivals.due(self.parts),
        )
        for other in others:
            if other is not None and (due is None or other < due):
                due = other
        return due

    def advance(self, now: int) -> list[Effect]:
        """Let time pass up to and including `now`."""
        effects: list[Effect] = []
        if self._quiet_until is not None and now < self._quiet_until and self.rotas.settled:
            self.now = max(now, self.now)
            return effects
        while (due := self.next_due()) is not None and due <= now:
            if self.parts.streams.due() == due:
                effects += self._stream_over(due)
            if drawbridge.due(self.parts) == due:
                effects += drawbridge.lower(self.parts, None, due)
            if raids.due(self.parts) == due:
                effects += raids.go(self.parts, due)
            if arrivals.due(self.parts) == due:
                effects += arrivals.greet_waiting(self.parts, due)
            effects += self.rotas.step(due)
        self.now = max(now, self.now)
        self._quiet_until = FOR_EVER if due is None else due
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
            if done := self._message(event, now):
                self._quiet_until = None
                effects += done
            return effects + self.rotas.step(now) if self.rotas.rotas else effects
        self._quiet_until = None
        if isinstance(event, StreamChange):
            effects += self._stream(event, now)
        elif isinstance(event, DeskAct):
            effects += self._desk(event, now)
        elif isinstance(event, Removal):
            effects += second_look.removed_by_a_person(self.parts, event, now)
        elif isinstance(event, Happening):
            effects += self._happening(event, now)
        elif isinstance(event, Answer):
            effects += asks.answered(self.parts, event, now)
        return effects + self.rotas.step(now)

    def _happening(self, event: Happening, now: int) -> list[Effect]:
        if event.what == "follow":
            self.state.people.edit(self.parts.directory.identity(event.person)).follows = True
            self.parts.forget(event.person)
        return happenings.answer(self.parts, event, now) if now - event.at <= ANSWERED_WITHIN else []

    def _message(self, message: Message, now: int) -> list[Effect]:
        parts = self.parts
        person = message.person
        if parts.state.platforms.get(message.platform) is None:
            parts.state.platforms.edit(message.platform)
        known = parts.know(person)
        effects: list[Effect] = []
        if known.unheard or "bot" in person.badges:
            effects = overlaps.bot_spoke(parts, message, now)
            if known.unheard:
                return [_clean(message, 0, now), *effects] if self._every_verdict else effects
        identity, level = known.identity, known.level
        heard = parts.ear.hear(message.text, message.reply_to is not None)
        up = drawbridge.is_up(parts)
        sight, seen = self._see(person, identity, up, now)
        effects += seen
        judgement = (parts.siege if up else parts.judge).judge(
            message,
            now,
            identity=identity,
            level=level,
            live=parts.streams.live,
            body=heard.body if heard else 0,
            company=parts.state.company,
            sight=sight,
        )
        if judgement is not None:
            effects.append(judgement.verdict)
            effects += self._watch(judgement, now)
            if judgement.verdict.outcome != "allow":
                return effects + carry_out(parts, judgement, message, identity, level, now)
        elif self._every_verdict:
            strikes = standing(self.state.people.get(identity), parts.judge.ladder, now)
            effects.append(_clean(message, strikes, now))
        self.rotas.line(message.platform)
        if now - message.at > ANSWERED_WITHIN:
            return effects
        effects += arrivals.arrive(parts, message, identity, level, now)
        if arrivals.due(parts) is not None:
            self._quiet_until = None
        if heard:
            parts.state.listening.command(heard.name, message)
            effects += run_command(parts, heard, message, level, identity, now)
        elif (cue := parts.cue_ear.hear(message)) is not None:
            effects += run_cue(parts, parts.cues[cue], message, level, identity, now)
        return effects

    def _see(self, person: Person, identity: str, up: bool, now: int) -> tuple[Sight, list[Effect]]:
        """Note who is here: never before, first in this stream, under a new name."""
        parts = self.parts
        accounts = parts.state.accounts
        known = accounts.get(person.key)
        stream = parts.streams.now.number
        held_back = up and drawbridge.holds_back(parts, known)
        if (
            known is not None
            and known.stream == stream
            and (known.login, known.name) == (person.login, person.name)
        ):
            if badges_changed(known, person):
                accounts.put(person.key, seen_as(person, stream, known, now))
            return (Sight(held_back=True) if held_back else KNOWN), []
        first_ever = known is None and not any(
            accounts.get(other) for other in parts.directory.linked(person) or () if other != person.key
        )
        accounts.put(person.key, seen_as(person, stream, known, now))
        crowd = parts.state.company.newcomer(now) if first_ever else 0
        offered = drawbridge.offer(parts, "newcomers", now) if crowd > drawbridge.FIRST_EVER else []
        return Sight(first_ever, True, held_back), offered

    def _watch(self, judgement: Judgement, now: int) -> list[Effect]:
        """What a verdict leads to besides: a doubt for the second look, an offer of the drawbridge."""
        tally.count_verdict(self.parts, judgement.verdict)
        if judgement.verdict.outcome != "allow" and judgement.unsure:
            second_look.note_unsure(self.parts, judgement.verdict, now)
        for finding in judgement.findings:
            if finding.filter == "copycats" and (finding.measured or 0) >= drawbridge.COPYING_PEOPLE:
                return drawbridge.offer(self.parts, "copycats", now)
        return []

    def _stream(self, event: StreamChange, now: int) -> list[Effect]:
        effects: list[Effect] = []
        when = min(now, event.at)
        due = self.parts.streams.due()
        if due is not None and due <= when:
            effects += self._stream_over(now)
        if not self.parts.streams.change(event, when):
            return effects
        moved = self.parts.counters.begin_stream()
        arrivals.prune(self.parts)
        self.rotas.begin_stream(now)
        effects += self._still_paused(event.platform, now)
        return effects + [effect for one in moved for effect in moved_effects(one, None, now)]

    def _still_paused(self, platform: str, now: int) -> list[Effect]:
        """What was paused in an earlier stream is said when the next one starts."""
        paused = [rota.name for rota in self.rotas.paused() if rota.on]
        if not paused:
            return []
        slot = next((slot for slot in self.parts.slots.values() if slot.key == "/timers"), None)
        command = f"{self.parts.kit.channel.prefix}{slot.names[0] if slot else 'timers'}"
        text = f"Still paused: {', '.join(paused)}. {command} on lets them go on."
        return [*aloud(text, platform, self.parts.abilities(platform), Cause("command", "timers"), now)]

    def _stream_over(self, now: int) -> list[Effect]:
        """The stream has ended: whatever was for tonight puts itself back."""
        self.parts.streams.end_gap()
        self.rotas.end_stream(now)
        effects = drawbridge.stream_over(self.parts, now)
        passes.prune(self.state, now)
        tally.prune(self.parts)
        return [*effects, *self.changes.put_back(tonight.changes(self.state), "gate", now)]

    def _desk(self, act: DeskAct, now: int) -> list[Effect]:
        if act.do in self.changes.acts:
            return [*self.changes.acts[act.do](act, now)]
        return carry_out_act(self.parts, act, now)


def _clean(message: Message, strikes: int, now: int) -> Verdict:
    """The verdict on a message in which nothing was found."""
    return Verdict(
        at=now,
        platform=message.platform,
        message=message.id,
        outcome="allow",
        seconds=None,
        filter=None,
        reasons=(),
        exempt=(),
        strikes=strikes,
    )
