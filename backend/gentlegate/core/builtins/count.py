"""`!count NAME [+n|-n|=n|undo]`: read a counter, step it, take the last change back."""

from __future__ import annotations

from gentlegate.core.builtins.base import Answer, Plan, refuse
from gentlegate.core.commands.use import Use
from gentlegate.core.counters import STEP, Moved, moved_effects
from gentlegate.core.errors import ActError
from gentlegate.core.kit.commands import BIGGEST, Counter
from gentlegate.core.parts import Parts


class Count:
    key = "count"

    def plan(self, use: Use, parts: Parts) -> Plan:
        name, _, last = use.args.rpartition(" ")
        step = last if name and (STEP.fullmatch(last) or last.lower() == "undo") else ""
        name = name if step else use.args
        counter = parts.counters.find(name)
        if counter is None:
            known = ", ".join(c.name for c in parts.counters.all.values()) or "none yet"
            said = f'No counter is named "{name}". ' if name else ""
            return refuse(f"{said}Counters: {known}.", changes=False)
        if not step:
            return Plan(run=lambda: ([], f"{counter.shown}: {parts.counters.value(counter)}"))
        return self._change(use, parts, counter, step.lower())

    def _change(self, use: Use, parts: Parts, counter: Counter, step: str) -> Plan:
        problem = None
        if step == "undo":
            if parts.counters.last_by(counter) is None:
                problem = f"There is nothing to undo on {counter.shown}."
        elif not _in_reach(step, parts.counters.value(counter)):
            problem = f"{counter.shown} takes whole numbers within ±{BIGGEST:,}."

        def guard() -> str | None:
            found = parts.counters.duplicate(counter, step, use.identity, use.now) if step != "undo" else None
            return found.words if found else None

        def run() -> Answer:
            try:
                moved = move(parts, counter, step, use.identity, use.person.name, use.now)
            except ActError as error:
                return [], str(error)
            return moved_effects(moved, use.person.key, use.now, use.cause), moved.words

        def may() -> bool:
            return parts.may(counter.needs, use.person, use.level)

        return Plan(run=run, may=may, problem=problem, cools=False, guard=guard)


def _in_reach(step: str, value: int) -> bool:
    match = STEP.fullmatch(step)
    if match is None:
        return False
    amount = int(match[2])
    after = amount if match[1] == "=" else value + (amount if match[1] == "+" else -amount)
    return abs(amount) <= BIGGEST and after <= BIGGEST


def move(parts: Parts, counter: Counter, step: str, by: str, by_name: str, now: int) -> Moved:
    """A step or an undo by anyone."""
    if step == "undo":
        return parts.counters.undo(counter)
    return parts.counters.step(counter, step, by, by_name, now)
