"""Who somebody is: linked identities, the channel's own lists, and the level that holds."""

from __future__ import annotations

from collections.abc import Iterable

from gentlegate.core.events import (
    BROADCASTER,
    EVERYONE,
    FOLLOWER,
    LEAD,
    LEVELS,
    MODERATOR,
    REGULAR,
    SUBSCRIBER,
    VIP,
    Person,
)
from gentlegate.core.kit.model import Kit

LEVEL_OF = {name: level for level, name in enumerate(LEVELS)}
BADGE_LEVELS = {"broadcaster": BROADCASTER, "moderator": MODERATOR, "vip": VIP, "subscriber": SUBSCRIBER}


class Directory:
    """Finds people in lists of person strings (`platform:id`, `platform:@login`), links included.

    An identity is the string under which all linked accounts of a person share their record.
    """

    def __init__(self, kit: Kit) -> None:
        self._group: dict[str, int] = {}
        self.groups = kit.people.linked
        for index, group in enumerate(kit.people.linked):
            for member in group:
                self._group[member] = index
        self.regulars = self.people(kit.people.regulars)
        self.leads = self.people(kit.people.leads)
        self.ignored = self.people(kit.people.ignored)
        self.gatekeeper = frozenset(kit.channel.gatekeeper)

    def people(self, listed: Iterable[str]) -> frozenset[str]:
        """A list with every linked account of those in it."""
        found = set(listed)
        for member in list(found):
            if (group := self._group.get(member)) is not None:
                found.update(self.groups[group])
        return frozenset(found)

    @staticmethod
    def names(person: Person) -> tuple[str, str]:
        return f"{person.platform}:{person.id}", f"{person.platform}:@{person.login.casefold()}"

    def holds(self, listed: frozenset[str], person: Person) -> bool:
        if not listed:
            return False
        key, login = self.names(person)
        return key in listed or login in listed

    def unheard(self, person: Person) -> bool:
        """Whether this is the Gatekeeper or an ignored bot, whose lines are nobody's."""
        return self.holds(self.gatekeeper, person) or self.holds(self.ignored, person)

    def linked(self, person: Person) -> list[str] | None:
        """All accounts of a linked person, or None."""
        if not self._group:
            return None
        key, login = self.names(person)
        group = self._group.get(key, self._group.get(login))
        return None if group is None else self.groups[group]

    def identity(self, person: Person) -> str:
        group = self.linked(person)
        return group[0] if group else person.key

    def identity_of(self, key: str) -> str:
        """The identity behind a person string, as far as the links tell."""
        group = self._group.get(key)
        return key if group is None else self.groups[group][0]

    def level(self, person: Person, follows: bool) -> int:
        """The highest level that holds, as an index into LEVELS."""
        level = FOLLOWER if follows or person.follows_since is not None else EVERYONE
        for badge in person.badges:
            level = max(level, BADGE_LEVELS.get(badge, EVERYONE))
        if level < REGULAR and self.holds(self.regulars, person):
            level = REGULAR
        if level < LEAD and self.holds(self.leads, person):
            level = LEAD
        return level
