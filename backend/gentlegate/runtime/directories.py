"""The platforms' directories, for the bench's type-ahead; each is asked for anew once a minute at most."""

from __future__ import annotations

import time
from collections.abc import Mapping
from typing import Any

from gentlegate.core.errors import ActError, GateError
from gentlegate.runtime.ports import Connector

KEPT = 60.0


class Directories:
    def __init__(self, connectors: Mapping[str, Connector]) -> None:
        self._connectors = connectors
        self._known: dict[str, tuple[float, list[str] | None]] = {}

    async def person(self, platform: str, login: str) -> dict[str, Any] | None:
        """Who has this log-in on a platform: `id`, `login`, `name`; None where nobody has.

        GateError where the platform cannot be asked now.
        """
        connector = self._connectors.get(platform)
        if connector is None:
            raise ActError(f'no platform "{platform}" is connected', "platform")
        return await connector.send("", {"effect": "lookup", "what": "person", "name": login})

    async def categories(self, platform: str) -> list[str] | None:
        """The platform's categories; None where it takes any name, none where it cannot be asked."""
        known = self._known.get(platform)
        if known and time.monotonic() - known[0] < KEPT:
            return known[1]
        connector = self._connectors.get(platform)
        if connector is None:
            return []
        question: dict[str, Any] = {"effect": "lookup", "what": "category", "name": ""}
        try:
            found = await connector.send("", question) or {}
        except GateError:
            return []
        names = None if found.get("any") else [str(name) for name in found.get("names", ())]
        self._known[platform] = (time.monotonic(), names)
        return names
