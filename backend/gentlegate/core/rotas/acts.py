"""The Desk's acts on rotas: pause and resume, the next notice now, a notice once as a test."""

from __future__ import annotations

from collections.abc import Callable

from gentlegate.core.effects import Effect
from gentlegate.core.errors import ActError, TemplateProblem
from gentlegate.core.events import DeskAct
from gentlegate.core.kit.load import load_notice
from gentlegate.core.kit.model import Rota
from gentlegate.core.parts import Parts
from gentlegate.core.rotas.order import where
from gentlegate.core.rotas.voice import Voice
from gentlegate.core.text.folding import fold_name


def _rota(parts: Parts, act: DeskAct) -> Rota:
    name = str(act.values.get("rota", ""))
    found = next((rota for rota in parts.kit.rotas if fold_name(rota.name) == fold_name(name)), None)
    if found is None:
        raise ActError(f'no rota is named "{name}"', "rota")
    return found


def _pause(parts: Parts, act: DeskAct, now: int) -> list[Effect]:
    paused = bool(act.values.get("paused"))
    rota = _rota(parts, act)
    if not parts.rotas.pause(rota, paused, now):
        raise ActError(f"{rota.name} was {'paused' if paused else 'running'} before", "paused")
    return []


def _next(parts: Parts, act: DeskAct, now: int) -> list[Effect]:
    return parts.rotas.post_next(parts.rotas.wanted_next(_rota(parts, act)), now)


def _send(parts: Parts, act: DeskAct, now: int) -> list[Effect]:
    """Say a notice once where it may be said; no clock and no place moves."""
    notice = load_notice(act.values.get("notice"))
    name = str(act.values.get("rota") or "notice")
    known = next((rota for rota in parts.kit.rotas if fold_name(rota.name) == fold_name(name)), None)
    rota = known or Rota(name=name)
    live = [one for one in parts.streams.now.live if rota.platforms is None or one in rota.platforms]
    platforms = where(notice, live)
    if not platforms:
        raise ActError("none of its platforms is live, so nobody would read it", "notice.platforms")
    try:
        return Voice(parts)(rota, notice, platforms, now)
    except TemplateProblem as error:
        raise ActError(str(error), "notice.text") from None


ACTS: dict[str, Callable[[Parts, DeskAct, int], list[Effect]]] = {
    "pause_rota": _pause,
    "next_notice": _next,
    "send_notice": _send,
}
