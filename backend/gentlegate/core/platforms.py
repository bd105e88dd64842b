"""What a platform can do, as its connector (or a kit's `platforms`) says; the engine knows none by name."""

from __future__ import annotations

from dataclasses import dataclass

from gentlegate.core.kit.model import Platform, TimeoutRange


@dataclass(frozen=True, slots=True)
class Abilities:
    """Lengths in characters, `timeouts` in seconds: `(from, to)` or the only values."""

    private: bool = True
    threads: bool = True
    removal: bool = True
    restore: bool = True
    ban: bool = True
    offline_chat: bool = True
    followers_only: bool = True
    category: bool = True
    marker: bool = True
    clip: bool = True
    raid: bool = True
    shoutout: bool = True
    ads: tuple[int, ...] = ()
    length: int | None = None
    title: int | None = None
    timeout_range: tuple[int, int] = (5, 1_814_400)
    timeout_values: tuple[int, ...] = ()

    def timeout(self, wanted: int) -> int:
        """The platform's nearest longer length, or its longest."""
        if self.timeout_values:
            return next((value for value in self.timeout_values if value >= wanted), self.timeout_values[-1])
        low, high = self.timeout_range
        return min(max(wanted, low), high)


def abilities_of(platform: Platform) -> Abilities:
    length = platform.timeout
    ranged = length if isinstance(length, TimeoutRange) else TimeoutRange()
    return Abilities(
        private=platform.private,
        threads=platform.threads,
        removal=platform.removal,
        restore=platform.restore,
        ban=platform.ban,
        offline_chat=platform.offline_chat,
        followers_only=platform.followers_only,
        marker=platform.marker,
        clip=platform.clip,
        raid=platform.raid,
        shoutout=platform.shoutout,
        ads=tuple(sorted(platform.ads)),
        length=platform.length,
        title=platform.title,
        timeout_range=(ranged.from_, ranged.to),
        timeout_values=tuple(sorted(length)) if isinstance(length, list) else (),
    )
