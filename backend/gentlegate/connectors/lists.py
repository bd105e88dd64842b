"""Fetching a list of hosts from an address."""

from __future__ import annotations

import httpx

from gentlegate.connectors.base import TryAgain

LARGEST = 12 << 20
SECONDS = 20.0


async def fetch(address: str) -> str:
    """The text at an address. TryAgain says why there is none, or that it is larger than 12 MiB."""
    try:
        async with (
            httpx.AsyncClient(timeout=SECONDS, trust_env=False, follow_redirects=True) as client,
            client.stream("GET", address) as answer,
        ):
            if not answer.is_success:
                raise TryAgain(f"{address} answered {answer.status_code}")
            body = bytearray()
            async for piece in answer.aiter_bytes():
                body += piece
                if len(body) > LARGEST:
                    raise TryAgain(f"{address} is larger than {LARGEST >> 20} MiB")
    except httpx.HTTPError as error:
        raise TryAgain(f"no answer from {address} ({type(error).__name__})") from None
    return body.decode("utf-8", "replace")
