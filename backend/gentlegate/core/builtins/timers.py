"""`!timers on|off [rota]`, `!timers next [rota]`: pause and resume rotas, or ask for the next notice now."""

from __future__ import annotations

from gentlegate.core.builtins.base import Answer, Plan, refuse
from gentlegate.core.commands.use import Use
from gentlegate.core.effects import Why
from gentlegate.core.errors import ActError
from gentlegate.core.kit.model import Rota
from gentlegate.core.parts import Parts
from gentlegate.core.text.folding import fold_name


class Timers:
    key = "timers"

    def plan(self, use: Use, parts: Parts) -> Plan:
        what, _, name = use.args.partition(" ")
        what, name = what.lower(), name.strip()
        known = ", ".join(rota.name for rota in parts.kit.rotas) or "none yet"
        if what not in ("on", "off", "next"):
            return refuse(f"Write on, off or next, and a rota if you mean one. Rotas: {known}.")
        rota = (
            next((one for one in parts.kit.rotas if fold_name(one.name) == fold_name(name)), None) if name else None
        )
        if (name and rota is None) or not parts.kit.rotas:
            return refuse(f'No rota is named "{name}". Rotas: {known}.' if name else "There are no rotas yet.")
        if what == "next":
            return _next(use, parts, rota)
        chosen = [rota] if rota else list(parts.kit.rotas)
        paused = what == "off"

        def run() -> Answer:
            moved = [one.name for one in chosen if parts.rotas.pause(one, paused, use.now)]
            state = "paused until it is switched on again" if paused else "running"
            if not moved:
                return [], f"Nothing changed: {_named(chosen)} was {'paused' if paused else 'running'} before."
            return [], f"{_named([one for one in chosen if one.name in moved])}: {state}."

        return Plan(run=run, cools=False)


def _next(use: Use, parts: Parts, rota: Rota | None) -> Plan:
    try:
        chosen = parts.rotas.wanted_next(rota)
    except ActError as error:
        why: Why = "offline" if error.field == "offline" else "disabled"
        return refuse(f"{str(error)[:1].upper()}{str(error)[1:]}.", why=why)
    return Plan(run=lambda: (parts.rotas.post_next(chosen, use.now), ""), cools=False)


def _named(rotas: list[Rota]) -> str:
    return ", ".join(rota.name for rota in rotas)
