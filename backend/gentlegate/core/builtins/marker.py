"""`!marker [note]` and `!clip`: a point of the stream to find again, and a piece of it kept."""

from __future__ import annotations

from gentlegate.core.builtins.base import Plan, refuse
from gentlegate.core.commands.use import Use
from gentlegate.core.parts import Parts
from gentlegate.core.stream import marks, saying


class MarkerBuiltIn:
    key = "marker"

    def plan(self, use: Use, parts: Parts) -> Plan:
        if not parts.streams.live:
            return refuse("Nothing is live, so there is nothing to mark.", why="offline")
        if len(use.args) > marks.LONGEST_NOTE:
            return refuse(f"A note has at most {marks.LONGEST_NOTE} characters; this one has {len(use.args)}.")
        return Plan(run=lambda: marks.mark(parts, use.args, saying.of_use(use), use.now))


class ClipBuiltIn:
    key = "clip"

    def plan(self, use: Use, parts: Parts) -> Plan:
        if not parts.streams.live:
            return refuse("Nothing is live, so there is nothing to clip.", why="offline")
        able = marks.able(parts, "clip", use.message.platform)
        if not able:
            return refuse("No platform that is live makes clips.", why="unsupported")
        return Plan(run=lambda: (marks.clip(parts, able[0], saying.of_use(use), use.now), ""))
