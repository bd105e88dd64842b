"""Who is asking: passwords, sessions, throttling, and what each level may do."""

from __future__ import annotations

import asyncio
import hashlib
import secrets
import time
from collections.abc import Callable
from typing import Any, Protocol

import structlog
from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError
from fastapi import Request
from starlette.requests import HTTPConnection

from gentlegate.core.errors import GateError
from gentlegate.core.team import Account, Permissions
from gentlegate.runtime.ports import StoreThread
from gentlegate.web.door.cookie import SECONDS, token_of
from gentlegate.web.door.second import SecondFactor
from gentlegate.web.door.tries import Tries
from gentlegate.web.problems import Refused

log = structlog.get_logger()
INVITATION_OVER = "This invitation was used already, has ended or was withdrawn. Ask for a new one."


class AccountStore(Protocol):
    def add(self, login: str, name: str, level: str, password: str, person: str | None = None) -> Account: ...
    def password_of(self, login: str) -> tuple[Account, str] | None: ...
    def all(self) -> list[Account]: ...
    def begin_session(self, token: str, account: Account, now: int, ends: int, from_where: str) -> None: ...
    def of_session(self, token: str, now: int) -> Account | None: ...
    def end_session(self, token: str) -> None: ...
    def take_welcome_key(self, key: str) -> bool: ...
    def set_password(self, account: Account, password: str, keep: str) -> None: ...


def hashed(token: str) -> str:
    """What is stored of a token or key."""
    return hashlib.sha256(token.encode()).hexdigest()


class Access:
    """Log-in and sessions."""

    def __init__(
        self,
        accounts: AccountStore,
        store: StoreThread,
        permissions: Permissions | None = None,
        hasher: PasswordHasher | None = None,
    ) -> None:
        self.accounts = accounts
        self.permissions = permissions or Permissions()
        self.second = SecondFactor(accounts, store)
        self._store = store
        self._hasher = hasher or PasswordHasher()
        self._tries = Tries()
        self._nobody = self._hasher.hash(secrets.token_hex(8))

    async def log_in(self, login: str, password: str, code: str, from_where: str) -> tuple[Account, str]:
        """The account and the cookie's token. Refused where password or code is wrong, or too often was."""
        attempt = self._tries.begin(login.casefold(), from_where)
        found = await self._store.run(self.accounts.password_of, login)
        right = await self._matches(found[1] if found else self._nobody, password)
        if found is None or not right:
            log.warning("access.wrong", login=login[:60], of=from_where)
            raise Refused(401, "log-in-wrong", "This log-in and password do not go together.", "password")
        try:
            await self.second.check(found[0], code)
        except Refused:
            if not code.strip():
                attempt.right()
            raise
        attempt.right()
        log.info("access.logged-in", login=found[0].login, of=from_where)
        return found[0], await self._begin(found[0], from_where)

    async def welcome(self, key: str, login: str, name: str, password: str, from_where: str) -> tuple[Account, str]:
        """The first account, made with the key that the first start printed."""
        if not await self._store.run(self.accounts.take_welcome_key, hashed(key)):
            raise Refused(403, "key-used", "This link was used already, or a newer one was printed.", "key")
        secret = await self._hash(password)
        account = await self._store.run(self.accounts.add, login, name, "broadcaster", secret)
        return account, await self._begin(account, from_where)

    async def accept(
        self, take: Callable[..., Account | None], key: str, login: str, name: str, password: str, from_where: str
    ) -> tuple[Account, str]:
        """An account by an invitation; `take` uses it up."""
        attempt = self._tries.begin(f"invitation {key[:8]}", from_where)
        secret = await self._hash(password)
        now = int(time.time() * 1_000_000)
        try:
            account = await self._store.run(take, hashed(key), login, name, secret, now)
        except GateError:
            attempt.right()
            raise
        if account is None:
            log.warning("access.wrong", invitation=key[:8], of=from_where)
            raise Refused(410, "invitation-over", INVITATION_OVER, "key")
        attempt.right()
        return account, await self._begin(account, from_where)

    async def prove(self, account: Account, password: str, from_where: str, field: str) -> None:
        """Refused, naming the field, where this is not the account's password."""
        attempt = self._tries.begin(account.login.casefold(), from_where)
        found = await self._store.run(self.accounts.password_of, account.login)
        if found is None or not await self._matches(found[1], password):
            log.warning("access.wrong", login=account.login, of=from_where)
            raise Refused(422, "password-wrong", "This is not your password now. Nothing was changed.", field)
        attempt.right()

    async def new_password(self, account: Account, new: str, request: Request) -> None:
        """Another password of one's own; every other session ends."""
        secret = await self._hash(new)
        keep = hashed(token_of(request))
        await self._store.run(self.accounts.set_password, account, secret, keep)

    async def _begin(self, account: Account, from_where: str) -> str:
        token = secrets.token_urlsafe(32)
        now = int(time.time() * 1_000_000)
        ends = now + SECONDS * 1_000_000
        await self._store.run(self.accounts.begin_session, hashed(token), account, now, ends, from_where)
        return token

    async def _hash(self, password: str) -> str:
        # Beside the store's own thread, which the live gate waits for.
        return await asyncio.to_thread(self._hasher.hash, password)

    async def _matches(self, secret: str, password: str) -> bool:
        try:
            return await asyncio.to_thread(self._hasher.verify, secret, password)
        except (VerificationError, InvalidHashError):
            return False

    async def who(self, connection: HTTPConnection) -> Account | None:
        token = token_of(connection)
        if not token:
            return None
        return await self._store.run(self.accounts.of_session, hashed(token), int(time.time() * 1_000_000))

    async def log_out(self, request: Request) -> None:
        if token := token_of(request):
            await self._store.run(self.accounts.end_session, hashed(token))


def not_allowed(account: Account, permissions: Permissions, act: str) -> Refused:
    """Says that somebody's level does not do this, and whom to ask."""
    return Refused(403, "not-allowed", f"A {account.level} may not do this; ask a {permissions.level(act)}.")


def needs(*acts: str) -> Callable[[Request], Any]:
    """A dependency: the account that asks, if it may do one of these."""

    async def check(request: Request) -> Account:
        account = await request.app.state.access.who(request)
        if account is None:
            raise Refused(401, "not-logged-in", "Log in first; what you typed is kept.")
        permissions: Permissions = request.app.state.access.permissions
        if not any(permissions.may(account, act) for act in acts):
            raise not_allowed(account, permissions, acts[0])
        return account  # type: ignore[no-any-return]

    return check
