"""The judge: every message from a person gets a verdict, with every reason there is for it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from gentlegate.core.company import Company
from gentlegate.core.effects import Exempt, Reason, Verdict
from gentlegate.core.events import BROADCASTER, MODERATOR, Message
from gentlegate.core.filters import Finding, build_filters
from gentlegate.core.filters.links import LinksFilter
from gentlegate.core.judge import passes
from gentlegate.core.judge.ladder import SEVERITY, add_strikes, in_grace, standing, step_at
from gentlegate.core.kit.filters import with_mood
from gentlegate.core.kit.model import Kit
from gentlegate.core.people.identity import LEVEL_OF, Directory
from gentlegate.core.state import State
from gentlegate.core.text.link_entries import EntryIndex
from gentlegate.core.text.reading import Reading


@dataclass(frozen=True, slots=True)
class Judgement:
    """A verdict and what its carrying out needs: the deciding finding's filter may speak or not."""

    verdict: Verdict
    struck: bool
    silent: bool
    findings: list[Finding]

    @property
    def unsure(self) -> bool:
        """Whether all that counted was found barely."""
        deciding = [f for f in self.findings if f.filter == self.verdict.filter]
        return bool(deciding) and all(f.unsure for f in deciding)


@dataclass(frozen=True, slots=True)
class Sight:
    """How the writer is known: never seen before, under a new name, held back with other newcomers."""

    first_ever: bool = False
    new_name: bool = False
    held_back: bool = False


KNOWN = Sight()


class Judge:
    """Settings in, verdicts out. It changes nothing but the strikes of the person judged."""

    def __init__(self, kit: Kit, directory: Directory, state: State, mood: str | None = None) -> None:
        settings = with_mood(kit.filters, mood or kit.channel.mood)
        self.ladder = kit.ladder
        self._state = state
        self._directory = directory
        self.all = {filter_.key: filter_ for filter_ in build_filters(settings, dict(state.feeds.items()))}
        self._on = [filter_ for filter_ in self.all.values() if filter_.settings.on]
        self._bounded = any(f.settings.platforms is not None or f.settings.when != "always" for f in self._on)
        self._looks = [filter_.look for filter_ in self._on]
        self._plain_looks = [filter_.look for filter_ in self._on if filter_.on_plain]
        self._order = {key: index for index, key in enumerate(self.all)}
        self._people = {key: directory.people(f.settings.exempt_people) for key, f in self.all.items()}
        links = self.all["links"]
        assert isinstance(links, LinksFilter)
        self._named: EntryIndex = links.named
        self._disguised: bool = links.settings.disguised
        self._pace_window = settings.pace.window
        self._text_window = settings.resends.window or 0
        self._compares = bool(settings.resends.on)

    def only(self, key: str) -> None:
        """Ask this filter alone from now on; for looking what its limit would catch."""
        self._on = [self.all[key]]
        self._looks = self._plain_looks = [self.all[key].look]

    def judge(
        self,
        message: Message,
        now: int,
        *,
        identity: str,
        level: int,
        live: bool,
        body: int,
        company: Company,
        sight: Sight = KNOWN,
    ) -> Judgement | None:
        """The judgement on a message whose first `body` code points are a known command's name.

        None where no filter found anything, as with nearly all messages.
        """
        findings = [] if level == BROADCASTER else self._look(message, now, live, body, identity, company, sight)
        if not findings:
            return None
        record = self._state.people.get(identity)
        exempt = [self._exempt(finding, message, level, identity, now) for finding in findings]
        counted = [f for f, by in zip(findings, exempt, strict=True) if by is None]
        strikes = max((self._settings(f).strikes for f in counted), default=0)
        grace = in_grace(record, self.ladder, now)
        struck = strikes > 0 and not grace
        if struck:
            add_strikes(self._state.people.edit(identity), self.ladder, strikes, now)
        total = standing(self._state.people.get(identity), self.ladder, now)
        steps = [self._step(f, total, grace) for f in counted]
        outcome, seconds, filter_, silent = self._most_severe(counted, steps)
        by_finding = {id(f): _shown(f, step) for f, step in zip(counted, steps, strict=True)}
        verdict = Verdict(
            at=now,
            platform=message.platform,
            message=message.id,
            outcome=outcome,
            seconds=seconds,
            filter=filter_,
            reasons=tuple(_reason(f, message, by_finding.get(id(f))) for f in findings),
            exempt=_exemptions(findings, exempt),
            strikes=total,
        )
        return Judgement(verdict, struck, silent, findings)

    def _look(
        self, message: Message, now: int, live: bool, body: int, identity: str, company: Company, sight: Sight
    ) -> list[Finding]:
        reading = Reading(message, body, now, identity, company, self._named, self._disguised)
        if sight is not KNOWN:
            reading.first_ever, reading.new_name = sight.first_ever, sight.new_name
            reading.held_back = sight.held_back
        text = reading.folded if self._compares else None
        reading.talk = company.hear(identity, now, text, self._pace_window, self._text_window)
        found: list[Finding] = []
        if not self._bounded:
            plain = sight is KNOWN and not message.action and reading.plain
            for look in self._plain_looks if plain else self._looks:
                if findings := look(reading):
                    found += findings
            return found
        for filter_ in self._on:
            settings = filter_.settings
            if settings.platforms is not None and message.platform not in settings.platforms:
                continue
            if settings.when != "always" and (settings.when == "live") != live:
                continue
            found += filter_.look(reading)
        return found

    def _settings(self, finding: Finding) -> Any:
        return self.all[finding.filter].settings

    def _exempt(self, finding: Finding, message: Message, level: int, identity: str, now: int) -> str | None:
        from_level = LEVEL_OF[self._settings(finding).exempt_from]
        if finding.forbidden:
            return "level" if level >= max(from_level, MODERATOR) else None
        if level >= from_level:
            return "level"
        if self._directory.holds(self._people[finding.filter], message.person):
            return "person"
        if passes.covers(self._state, identity, finding.filter, now):
            return "pass"
        return "allowed" if finding.allowed else None

    def _step(self, finding: Finding, strikes: int, grace: bool) -> tuple[str | None, int | None, bool]:
        """The finding's step, its seconds, and whether nothing is said: its own, its filter's, or the ladder's."""
        settings = self._settings(finding)
        if finding.step:
            return finding.step, finding.seconds if finding.step == "timeout" else None, False
        if settings.step:
            return settings.step, settings.seconds if settings.step == "timeout" else None, False
        if settings.strikes == 0:
            return None, None, True
        if grace:
            return "remove", None, True
        step = step_at(self.ladder, strikes)
        return (step.step, step.seconds if step.step == "timeout" else None, False) if step else (None, None, True)

    def _most_severe(
        self, findings: list[Finding], steps: list[tuple[str | None, int | None, bool]]
    ) -> tuple[Any, int | None, str | None, bool]:
        best: tuple[Any, int | None, str | None, bool] = ("allow", None, None, True)
        rank = (0, 0, 0)
        for finding, (step, seconds, silent) in zip(findings, steps, strict=True):
            if step is None:
                continue
            here = (SEVERITY[step], seconds or 0, -self._order[finding.filter])
            if best[2] is None or here > rank:
                best, rank = (step, seconds, finding.filter, silent), here
                if _quietly(finding, step, self._settings(finding).step):
                    best = ("remove", None, finding.filter, True)
        return best


def _quietly(finding: Finding, step: str | None, fixed: str | None) -> bool:
    """Whether the ladder's nudge becomes a removal without a word."""
    return finding.quiet and step == "nudge" and fixed is None


def _shown(finding: Finding, step: tuple[str | None, int | None, bool]) -> str | None:
    return "remove" if _quietly(finding, step[0], finding.step) else step[0]


def _reason(finding: Finding, message: Message, step: str | None) -> Reason:
    text = message.text[finding.span[0] : finding.span[1]] if finding.span else finding.text
    return Reason(finding.filter, finding.measured, finding.limit, finding.span, text, step)  # type: ignore[arg-type]


def _exemptions(findings: list[Finding], exempt: list[str | None]) -> tuple[Exempt, ...]:
    pairs = {(f.filter, by): None for f, by in zip(findings, exempt, strict=True) if by}
    return tuple(Exempt(filter_, by) for filter_, by in pairs)  # type: ignore[arg-type]
