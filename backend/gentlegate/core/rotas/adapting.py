"""What becomes of rotas' clocks when their settings change (spec page 6, rule 9): nothing ever posts at once."""

from __future__ import annotations

from collections.abc import Sequence

from gentlegate.core.kit.model import Rota
from gentlegate.core.records import RotaRecord
from gentlegate.core.rotas.surroundings import Surroundings, counts
from gentlegate.core.text.folding import fold_name


def adapt(around: Surroundings, before: Sequence[Rota], after: Sequence[Rota], now: int) -> None:
    """Let the clocks of `before` go on under `after`: a changed rhythm counts from the last post."""
    known = {fold_name(rota.name): rota for rota in before}
    known |= _renamed(around, before, after)
    for rota in after:
        key = fold_name(rota.name)
        record, old = around.state.rotas.get(key), known.get(key)
        if record is None:
            _begin(around, key, rota, now)
        elif old is not None and old != rota:
            _change(around, key, old, rota, now)


def _renamed(around: Surroundings, before: Sequence[Rota], after: Sequence[Rota]) -> dict[str, Rota]:
    """The rotas that stand under another name where one stood before; their records go with them."""
    old_keys, new_keys = ([fold_name(rota.name) for rota in rotas] for rotas in (before, after))
    rows, found = around.state.rotas, {}
    for rota, old, key in zip(before, old_keys, new_keys, strict=False):
        if old not in new_keys and key not in old_keys:
            found[key] = rota
            if record := rows.get(old):
                rows.put(key, record)
                rows.drop(old)
    return found


def _begin(around: Surroundings, key: str, rota: Rota, now: int) -> None:
    if around.streams.now.phase in ("live", "gap"):
        spacing = around.kit.channel.spacing
        first = rota.every if rota.first_after is None else max(rota.first_after, spacing)
        around.state.rotas.put(key, RotaRecord(due=now + first, base=counts(around.state)))


def _change(around: Surroundings, key: str, old: Rota, rota: Rota, now: int) -> None:
    record, spacing = around.state.rotas.edit(key), around.kit.channel.spacing
    record.ready = None
    due = record.due
    if _rhythm(old) != _rhythm(rota):
        due = _due_anew(around, record, rota, now)
        due = due if due is None else max(due, now + spacing)
    elif due is not None and due <= now:
        due = now + spacing
    record.due = due


def _due_anew(around: Surroundings, record: RotaRecord, rota: Rota, now: int) -> int | None:
    """When it is due under its new rhythm, counted from its last post or from what it began with."""
    stream = around.streams.now
    if stream.phase == "never":
        return None
    if stream.phase == "over":
        ended = (stream.last_off or now) + around.kit.channel.stream_gap
        return None if rota.every_offline is None else max(record.last or ended, ended) + rota.every_offline
    if record.last is not None and record.last >= stream.began:
        return record.last + rota.every
    return stream.began + (rota.every if rota.first_after is None else rota.first_after)


def _rhythm(rota: Rota) -> tuple[int | None, ...]:
    return rota.every, rota.every_offline, rota.first_after
