"""`!ad SECONDS`: an ad break on the platform it was asked on, or on the one named with `on NAME`."""

from __future__ import annotations

from gentlegate.core.builtins.base import Answer, Plan, refuse
from gentlegate.core.builtins.title import aimed_at_one
from gentlegate.core.commands.use import Use
from gentlegate.core.parts import Parts
from gentlegate.core.stream import ads, saying


class AdBuiltIn:
    key = "ad"

    def plan(self, use: Use, parts: Parts) -> Plan:
        text, platform = aimed_at_one(use.args, parts, use.message.platform)
        text = text.lower().removesuffix("s")
        if problem := ads.problem(parts, platform, text, use.now):
            return refuse(problem[1], why=problem[0])

        def run() -> Answer:
            seconds = int(text)
            return ads.start(parts, platform, seconds, saying.of_use(use), use.now), (
                f"Ad break of {seconds} s on {platform.capitalize()}."
            )

        return Plan(run=run)
