"""`!commands`: what this person may use here, in one or two messages."""

from __future__ import annotations

from gentlegate.core.builtins.base import Plan
from gentlegate.core.commands.use import Use
from gentlegate.core.parts import Parts, Slot

MOST_MESSAGES = 2
USUAL_LENGTH = 480


class CommandsBuiltIn:
    key = "commands"

    def plan(self, use: Use, parts: Parts) -> Plan:
        prefix = parts.kit.channel.prefix
        names = [prefix + slot.shown for slot in parts.slots.values() if _usable(slot, use, parts)]
        length = parts.abilities(use.message.platform).length or USUAL_LENGTH
        return Plan(run=lambda: ([], _fitted(names, length * MOST_MESSAGES - 40)))


def _usable(slot: Slot, use: Use, parts: Parts) -> bool:
    """Whether this person may use it here and now, cooldowns aside."""
    here = slot.platforms is None or use.message.platform in slot.platforms
    return slot.on and here and not parts.state_found(slot.when) and parts.may(slot.needs, use.person, use.level)


def _fitted(names: list[str], room: int) -> str:
    text = "Commands: "
    for index, name in enumerate(names):
        if len(text) + len(name) + 1 > room:
            return f"{text.rstrip()} and {len(names) - index} more."
        text += name + " "
    return text.rstrip()
