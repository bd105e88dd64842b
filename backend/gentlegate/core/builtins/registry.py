"""The one list of built-ins."""

from __future__ import annotations

from gentlegate.core.builtins.base import BuiltIn
from gentlegate.core.builtins.commands import CommandsBuiltIn
from gentlegate.core.builtins.count import Count
from gentlegate.core.builtins.let_pass import PassBuiltIn
from gentlegate.core.builtins.title import TitleBuiltIn
from gentlegate.core.builtins.uptime import Uptime

REGISTRY: dict[str, BuiltIn] = {
    built_in.key: built_in for built_in in (CommandsBuiltIn(), Uptime(), TitleBuiltIn(), Count(), PassBuiltIn())
}
