"""Asking a platform over HTTP: its answers as values, its refusals as NotPossible or TryAgain."""

from __future__ import annotations

from typing import Any

import httpx

from gentlegate.connectors.base import NotPossible, TryAgain


class NotFound(NotPossible):
    """The platform knows nothing of the kind."""


class Http:
    """A platform's HTTP side; one connection pool, short time limits."""

    def __init__(self, address: str, headers: dict[str, str]) -> None:
        self._client = httpx.AsyncClient(base_url=address, headers=headers, timeout=5.0, trust_env=False)

    async def close(self) -> None:
        await self._client.aclose()

    async def get(self, path: str, **params: Any) -> dict[str, Any]:
        return await self._ask("GET", path, params={k: v for k, v in params.items() if v is not None})

    async def post(self, path: str, body: dict[str, Any]) -> dict[str, Any]:
        return await self._ask("POST", path, json=body)

    async def put(self, path: str, body: dict[str, Any]) -> dict[str, Any]:
        return await self._ask("PUT", path, json=body)

    async def find(self, path: str) -> dict[str, Any] | None:
        """What is at the path; None where the platform knows nothing there."""
        try:
            return await self._ask("GET", path)
        except NotFound:
            return None

    async def _ask(self, method: str, path: str, **values: Any) -> dict[str, Any]:
        try:
            answer = await self._client.request(method, path, **values)
        except httpx.HTTPError as error:
            raise TryAgain(f"no answer from the platform ({type(error).__name__})") from None
        if answer.is_success:
            return dict(answer.json())
        reason = _reason(answer)
        if answer.status_code in (429, 502, 503, 504):
            after = answer.headers.get("Retry-After")
            raise TryAgain(reason, float(after) if after else None)
        raise NotFound(reason) if answer.status_code == 404 else NotPossible(reason)


def _reason(answer: httpx.Response) -> str:
    try:
        return str(answer.json()["reason"])
    except (ValueError, KeyError, TypeError):
        return f"the platform answered {answer.status_code}"
