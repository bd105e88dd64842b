"""`!following`: how long this person has followed."""

from __future__ import annotations

from gentlegate.core.builtins.base import Plan
from gentlegate.core.commands.use import Use
from gentlegate.core.events import FOLLOWER
from gentlegate.core.moments import in_words
from gentlegate.core.parts import Parts


class Following:
    key = "following"

    def plan(self, use: Use, parts: Parts) -> Plan:
        since, name = use.person.follows_since, use.person.name
        record = parts.state.people.get(use.identity)
        if since is not None:
            text = f"{name} has followed for {in_words(max(0, use.now - since))}."
        elif use.level == FOLLOWER or (record and record.follows):
            text = f"{name} follows; since when is not known."
        else:
            text = f"{name} does not follow."
        return Plan(run=lambda: ([], text))
