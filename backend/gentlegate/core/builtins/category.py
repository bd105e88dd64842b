"""`!category [name]`: read the category, or set it on every live platform, or on the one named with `on NAME`."""

from __future__ import annotations

from gentlegate.core.builtins.base import Plan, refuse
from gentlegate.core.builtins.title import aimed, by_platform, targets
from gentlegate.core.commands.use import Use
from gentlegate.core.parts import Parts
from gentlegate.core.stream import categories, saying


class CategoryBuiltIn:
    key = "category"

    def plan(self, use: Use, parts: Parts) -> Plan:
        if not use.args:
            return Plan(run=lambda: ([], _read(parts)))
        wanted, platforms = aimed(use.args, parts)
        if not wanted:
            return refuse("Write the category after the command.", changes=True)
        if not platforms:
            return refuse("No platform is connected.", changes=True)
        if problem := categories.unable(parts, platforms):
            return refuse(problem, changes=True, why="unsupported")
        values = saying.of_use(use)
        return Plan(
            run=lambda: (categories.set_category(parts, wanted, platforms, values, use.now), ""), changes=True
        )


def _read(parts: Parts) -> str:
    known = {name: category for name in targets(parts) if (category := parts.category(name))}
    return f"Category: {by_platform(known)}." if known else "No category is set."
