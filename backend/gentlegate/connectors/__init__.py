"""One package a platform; `KNOWN` lists them."""

from __future__ import annotations

from collections.abc import Callable

from gentlegate.connectors.base import Connector
from gentlegate.connectors.brook import Brook
from gentlegate.connectors.lantern import Lantern
from gentlegate.connectors.plaza import Plaza

KNOWN: dict[str, Callable[[str, str, str], Connector]] = {"brook": Brook, "lantern": Lantern, "plaza": Plaza}
"""Makes a connector from the platform's address and token, and the address at which the platform reaches us."""
