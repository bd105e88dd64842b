"""The second factor: time-based codes (RFC 6238), one step of 30 s either way, each code taken once."""

from __future__ import annotations

import hmac
import time
from collections.abc import Callable
from typing import Any

import pyotp
import segno

from gentlegate.core.team import Account
from gentlegate.runtime.ports import StoreThread
from gentlegate.web.problems import Refused

STEP = 30
ISSUER = "Gentle Gate"
WRONG = "This code is not the one of this moment. See that the clock of your phone is right, and try the next one."
NEEDED = "Give the six digits that your authenticator shows for Gentle Gate."


class SecondFactor:
    """Secrets wait here until a first code proves that they have arrived; `store` keeps them from then on."""

    def __init__(self, accounts: Any, store: StoreThread, clock: Callable[[], float] = time.time) -> None:
        self._accounts = accounts
        self._store = store
        self._clock = clock
        self._waiting: dict[int, str] = {}

    def begin(self, account: Account) -> tuple[str, str, str]:
        """A new secret: itself, its address for authenticators, and that as a picture (a data address)."""
        secret = pyotp.random_base32()
        self._waiting[account.id] = secret
        address = pyotp.TOTP(secret).provisioning_uri(name=account.login, issuer_name=ISSUER)
        return (
            secret,
            address,
            segno.make(address, error="m").svg_data_uri(scale=5, light="#fffdf8", dark="#21302c"),
        )

    async def confirm(self, account: Account, code: str) -> None:
        """The first code turns it on. Refused where it is wrong."""
        secret = self._waiting.get(account.id)
        step = self._step_of(secret, code, 0) if secret else None
        if secret is None or step is None:
            raise Refused(422, "code-wrong", WRONG, "code")
        await self._store.run(self._accounts.set_second, account, secret, step)
        del self._waiting[account.id]

    async def check(self, account: Account, code: str) -> None:
        """Refused where this account asks for a code and this is not it, or was used before."""
        known = await self._store.run(self._accounts.second_of, account)
        if known is None:
            return
        if not code.strip():
            raise Refused(401, "code-needed", NEEDED, "code")
        secret, used = known
        step = self._step_of(secret, code, used)
        if step is None or not await self._store.run(self._accounts.use_second, account, step):
            raise Refused(401, "code-wrong", WRONG, "code")

    def _step_of(self, secret: str, code: str, used: int) -> int | None:
        """The time step that a code is of, if it is of one near now and later than the last one used."""
        now, given = int(self._clock()) // STEP, "".join(code.split()).encode()
        codes = pyotp.TOTP(secret, interval=STEP)
        near = (step for step in (now, now - 1, now + 1) if step > used)
        return next((step for step in near if hmac.compare_digest(codes.at(step * STEP).encode(), given)), None)
