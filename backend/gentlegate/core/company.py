"""What was said lately: by each person, and by the crowd. Kept in memory only; nothing of it outlasts its window."""

from __future__ import annotations

from collections import deque
from dataclasses import dataclass, field

from rapidfuzz import process
from rapidfuzz.fuzz import ratio

from gentlegate.core.moments import SECOND

STILL_TRIPPED = 60 * SECOND
FIRST_COPIES = 32
NEWCOMERS_WITHIN = 10 * SECOND
SWEEP_EVERY = 5000


@dataclass(slots=True)
class Talk:
    """One person's last messages: their moments, and the folded texts with theirs, none older than it counts."""

    times: list[int] = field(default_factory=list)
    texts: list[tuple[int, str]] = field(default_factory=list)


@dataclass(slots=True)
class _Wave:
    """Near-identical messages: the first copy, when each person sent one last, and whether it was too many."""

    text: str
    people: dict[str, int]
    last: int
    window: int
    tripped: bool = False

    def over(self, now: int) -> bool:
        return now - self.last >= (STILL_TRIPPED if self.tripped else self.window)


class Company:
    """The last messages of everybody, as `resends`, `pace` and `copycats` need them."""

    def __init__(self) -> None:
        self._talk: dict[str, Talk] = {}
        self._waves: list[_Wave] = []
        self._firsts: list[str] = []
        self._exact: dict[str, _Wave] = {}
        self._heard = 0
        self._newcomers: deque[int] = deque()

    def newcomer(self, now: int) -> int:
        """Somebody talks for the first time ever: how many did so within the last 10 s."""
        self._newcomers.append(now)
        while now - self._newcomers[0] >= NEWCOMERS_WITHIN:
            self._newcomers.popleft()
        return len(self._newcomers)

    def hear(self, identity: str, now: int, text: str | None, pace_window: int, text_window: int) -> Talk:
        """Take a message in; `text` is its folded text, None where nobody compares it."""
        self._heard += 1
        if self._heard % SWEEP_EVERY == 0:
            self._sweep(now, max(pace_window, text_window))
        talk = self._talk.get(identity)
        if talk is None:
            talk = self._talk[identity] = Talk()
        times = talk.times
        while times and now - times[0] >= pace_window:
            del times[0]
        times.append(now)
        if text is not None:
            texts = talk.texts
            while texts and now - texts[0][0] >= text_window:
                del texts[0]
            texts.append((now, text))
        return talk

    def crowd(self, text: str, identity: str, now: int, window: int, alike: float, people: int) -> int:
        """How many people sent copies of this folded text; 0 while they are not too many."""
        wave = self._find(text, now, alike)
        if wave is None:
            self._begin(_Wave(text, {identity: now}, now, window), now)
            return 0
        wave.people[identity] = wave.last = now
        wave.window = window
        if not wave.tripped:
            if len(wave.people) >= people:
                wave.people = {who: at for who, at in wave.people.items() if now - at < window}
            wave.tripped = len(wave.people) >= people
        return len(wave.people) if wave.tripped else 0

    def _find(self, text: str, now: int, alike: float) -> _Wave | None:
        while self._waves and self._waves[0].over(now):
            self._end(0)
        wave = self._exact.get(text)
        if wave is not None and not wave.over(now):
            return wave
        while self._firsts:
            found = process.extractOne(text, self._firsts, scorer=ratio, score_cutoff=alike * 100)
            if found is None:
                return None
            wave = self._waves[found[2]]
            if not wave.over(now):
                return wave
            self._end(found[2])
        return None

    def _begin(self, wave: _Wave, now: int) -> None:
        if len(self._waves) >= FIRST_COPIES:
            oldest = next((index for index, one in enumerate(self._waves) if not one.tripped), 0)
            del self._waves[oldest], self._firsts[oldest]
        self._waves.append(wave)
        self._firsts.append(wave.text)
        self._exact[wave.text] = wave

    def _end(self, index: int) -> None:
        wave = self._waves.pop(index)
        del self._firsts[index]
        if self._exact.get(wave.text) is wave:
            del self._exact[wave.text]

    def _sweep(self, now: int, window: int) -> None:
        """Forget people who have been silent, and first copies that nobody repeated."""
        self._talk = {who: talk for who, talk in self._talk.items() if talk.times and now - talk.times[-1] < window}
        self._exact = {text: wave for text, wave in self._exact.items() if not wave.over(now)}
