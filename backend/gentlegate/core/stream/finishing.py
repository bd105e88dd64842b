"""What is done once platforms have answered: one entry for each thing that asks."""

from __future__ import annotations

from collections.abc import Callable

from gentlegate.core.effects import Effect
from gentlegate.core.parts import Parts
from gentlegate.core.records import AskRecord
from gentlegate.core.stream import categories, marks, raids, shoutouts

FINISH: dict[str, Callable[[Parts, AskRecord, int], list[Effect]]] = {
    "category": categories.finish,
    "shoutout": shoutouts.finish,
    "raid": raids.finish,
    "clip": marks.finish_clip,
}
