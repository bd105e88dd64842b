"""Acts at the Desk and the bench: the same rules as in chat, by people whose level the Desk has checked."""

from __future__ import annotations

from collections.abc import Callable

from gentlegate.core import overlaps
from gentlegate.core.builtins.count import move
from gentlegate.core.builtins.title import set_title, targets, too_long
from gentlegate.core.commands.replies import aloud
from gentlegate.core.counters import STEP, moved_effects
from gentlegate.core.effects import Cause, Effect, Refused
from gentlegate.core.errors import ActError
from gentlegate.core.events import DeskAct
from gentlegate.core.judge import drawbridge, second_look
from gentlegate.core.judge.by_hand import act_by_hand, let_pass, lift
from gentlegate.core.judge.undo import undo
from gentlegate.core.parts import Parts
from gentlegate.core.rotas import acts as rota_acts
from gentlegate.core.stream import acts


def _text(act: DeskAct, field: str) -> str:
    value = act.values.get(field)
    if not isinstance(value, str) or not value.strip():
        raise ActError(f"{field} is missing", field)
    return value.strip()


def _count(parts: Parts, act: DeskAct, now: int) -> list[Effect]:
    counter = parts.counters.find(_text(act, "name"))
    if counter is None:
        raise ActError(f'no counter is named "{act.values["name"]}"', "name")
    step = _text(act, "step").lower()
    if step != "undo" and not STEP.fullmatch(step):
        raise ActError(f'"{step}" is no step; write +1, -1, =10 or undo', "step")
    cause = Cause("desk", "count")
    by = parts.directory.identity_of(act.by)
    if step != "undo" and parts.counters.duplicate(counter, step, by, now):
        return [Refused(at=now, platform=None, message=None, command="count", why="duplicate", cause=cause)]
    moved = move(parts, counter, step, by, str(act.values.get("name_of_by", act.by)), now)
    return moved_effects(moved, act.by, now, cause)


def _title(parts: Parts, act: DeskAct, now: int) -> list[Effect]:
    wanted = act.values.get("platforms")
    platforms = [str(name) for name in wanted] if isinstance(wanted, list) else targets(parts)
    title, cause = _text(act, "title"), Cause("desk", "title")
    effects, said = set_title(title, platforms, parts, now, cause)
    if not effects:
        raise ActError(said or "No platform is connected.", "title")
    for name in too_long(title, platforms, parts):
        effects.append(Refused(at=now, platform=name, message=None, command="title", why="arguments", cause=cause))
    return effects


def _say(parts: Parts, act: DeskAct, now: int) -> list[Effect]:
    wanted = act.values.get("platforms")
    platforms = [str(name) for name in wanted] if isinstance(wanted, list) else parts.streams.now.live
    if not platforms:
        raise ActError("no platform is live, so nobody would read it", "platforms")
    text, cause = _text(act, "text"), Cause("desk", "say")
    return [say for name in platforms for say in aloud(text, name, parts.abilities(name), cause, now)]


def _clear(parts: Parts, act: DeskAct, now: int) -> list[Effect]:
    who = act.values.get("identity")
    if not parts.cooldowns.clear(_text(act, "command"), str(who) if who else None):
        raise ActError("this cooldown is over already", "command")
    return []


ACTS: dict[str, Callable[[Parts, DeskAct, int], list[Effect]]] = {
    "undo": undo,
    "count": _count,
    "title": _title,
    "say": _say,
    "clear": _clear,
    "remove": act_by_hand,
    "timeout": act_by_hand,
    "ban": act_by_hand,
    "lift": lift,
    "pass": let_pass,
    "look": second_look.ask,
    "settle": second_look.ask,
    "drawbridge": drawbridge.move,
    "overlap": overlaps.settle,
    **acts.ACTS,
    **rota_acts.ACTS,
}


def carry_out_act(parts: Parts, act: DeskAct, now: int) -> list[Effect]:
    """The effects of an act. ActError says what is wrong with it; then nothing was changed."""
    if act.do not in ACTS:
        raise ActError(
            f'there is no act named "{act.do}"; there are: {", ".join([*ACTS, *parts.changes.acts])}',
            "do",
        )
    return ACTS[act.do](parts, act, now)
