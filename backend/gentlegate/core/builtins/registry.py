"""The one list of built-ins."""

from __future__ import annotations

from gentlegate.core.builtins.ad import AdBuiltIn
from gentlegate.core.builtins.base import BuiltIn
from gentlegate.core.builtins.category import CategoryBuiltIn
from gentlegate.core.builtins.commands import CommandsBuiltIn
from gentlegate.core.builtins.count import Count
from gentlegate.core.builtins.following import Following
from gentlegate.core.builtins.let_pass import PassBuiltIn
from gentlegate.core.builtins.marker import ClipBuiltIn, MarkerBuiltIn
from gentlegate.core.builtins.mood import MoodBuiltIn
from gentlegate.core.builtins.quote import QuoteBuiltIn
from gentlegate.core.builtins.raid import RaidBuiltIn
from gentlegate.core.builtins.so import So
from gentlegate.core.builtins.teach import Forget, Reword, Teach
from gentlegate.core.builtins.timers import Timers
from gentlegate.core.builtins.title import TitleBuiltIn
from gentlegate.core.builtins.uptime import Uptime
from gentlegate.core.builtins.why import Why

REGISTRY: dict[str, BuiltIn] = {
    built_in.key: built_in
    for built_in in (
        CommandsBuiltIn(), Uptime(), Following(), TitleBuiltIn(), CategoryBuiltIn(), So(), MarkerBuiltIn(), ClipBuiltIn(),
        AdBuiltIn(), RaidBuiltIn(), Count(), QuoteBuiltIn(), PassBuiltIn(), Why(), Teach(), Reword(),
        Forget(), MoodBuiltIn(), Timers(),
    )
}  # fmt: skip
