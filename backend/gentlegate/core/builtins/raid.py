"""`!raid NAME`, `!raid cancel`: everybody is sent to another channel, 30 s from now unless it is cancelled."""

from __future__ import annotations

from gentlegate.core.builtins.base import Answer, Plan, refuse
from gentlegate.core.builtins.title import aimed_at_one
from gentlegate.core.commands.use import Use
from gentlegate.core.parts import Parts
from gentlegate.core.stream import raids, saying


class RaidBuiltIn:
    key = "raid"

    def plan(self, use: Use, parts: Parts) -> Plan:
        if use.args.strip().lower() == "cancel":
            return _cancel(parts)
        name, platform = aimed_at_one(use.args, parts, use.message.platform)
        if not name:
            return refuse(f"Write {parts.kit.channel.prefix}raid NAME, or cancel.", changes=True)
        if problem := raids.problem(parts, platform):
            return refuse(problem[1], changes=True, why=problem[0])
        if name.split()[0].lstrip("@").lower() == use.person.login.lower() and "broadcaster" in use.person.badges:
            return refuse("That is this channel itself.", changes=True)

        def run() -> Answer:
            return raids.arm(parts, name.split()[0], platform, saying.of_use(use), use.now), ""

        return Plan(run=run, changes=True)


def _cancel(parts: Parts) -> Plan:
    record = raids.armed(parts)
    if record is None:
        return refuse("No raid is armed.")

    def run() -> Answer:
        raids.cancel(parts)
        return [], f"The raid to {record.name} is called off. {record.by_name} had armed it."

    return Plan(run=run, cools=False)
