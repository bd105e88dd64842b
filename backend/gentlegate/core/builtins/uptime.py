"""`!uptime`: how long the stream has been live."""

from __future__ import annotations

from gentlegate.core.builtins.base import Plan
from gentlegate.core.commands.use import Use
from gentlegate.core.moments import in_words
from gentlegate.core.parts import Parts


class Uptime:
    key = "uptime"

    def plan(self, use: Use, parts: Parts) -> Plan:
        stream = parts.streams.now
        text = (
            f"Live for {in_words(max(0, use.now - stream.began))}." if parts.streams.live else "Not live right now."
        )
        return Plan(run=lambda: ([], text))
