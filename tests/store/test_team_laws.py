"""Laws of accounts, sessions and invitations, as machines that do anything in any order beside a plain model."""

from __future__ import annotations

import tempfile
import unittest
from pathlib import Path

from hypothesis import settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, initialize, invariant, precondition, rule

from gentlegate.core.moments import HOUR
from gentlegate.core.team import Account
from gentlegate.store.accounts import IDLE, USE_NOTED, Accounts
from gentlegate.store.database import Database, StoreError
from gentlegate.store.team import Team

LOGINS = ("bram", "wren", "ivy")
LONGEST = 30 * 24 * HOUR
FEW = settings(max_examples=30, stateful_step_count=30, deadline=None)


class OnADatabase(RuleBasedStateMachine):
    def __init__(self) -> None:
        super().__init__()
        self.folder = tempfile.TemporaryDirectory()
        self.database = Database(Path(self.folder.name) / "gate.db")
        self.accounts, self.team = Accounts(self.database), Team(self.database)
        self.now = 1_000 * HOUR

    def teardown(self) -> None:
        self.database.close()
        self.folder.cleanup()

    @rule(hours=st.sampled_from([1, 5, 30, 100, 200]))
    def time_passes(self, hours: int) -> None:
        self.now += hours * HOUR


class SessionsMachine(OnADatabase):
    """`open` is what ought to be open: by token the account's log-in, its end, and when it was last seen used."""

    @initialize()
    def people(self) -> None:
        self.of: dict[str, Account] = {
            login: self.accounts.add(login, login.title(), "moderator", "secret") for login in LOGINS
        }
        self.open: dict[str, tuple[str, int, int]] = {}
        self.made = 0

    @rule(login=st.sampled_from(LOGINS))
    def log_in(self, login: str) -> None:
        if login not in self.of:
            return
        self.made += 1
        token, ends = f"t{self.made}", self.now + LONGEST
        self.accounts.begin_session(token, self.of[login], self.now, ends, "here")
        self.open[token] = (login, ends, self.now)

    def alive(self, token: str) -> bool:
        _, ends, used = self.open[token]
        return ends > self.now and used > self.now - IDLE

    @precondition(lambda self: self.made > 0)
    @rule(data=st.data())
    def use(self, data: st.DataObject) -> None:
        token = f"t{data.draw(st.integers(1, self.made))}"
        found = self.accounts.of_session(token, self.now)
        if token in self.open and self.alive(token):
            login, ends, used = self.open[token]
            assert found is not None and found.login == login
            self.open[token] = (login, ends, self.now if self.now - used > USE_NOTED else used)
        else:
            assert found is None

    @precondition(lambda self: self.made > 0)
    @rule(data=st.data())
    def log_out(self, data: st.DataObject) -> None:
        token = f"t{data.draw(st.integers(1, self.made))}"
        self.accounts.end_session(token)
        self.open.pop(token, None)

    @rule(login=st.sampled_from(LOGINS), keep=st.booleans())
    def another_password(self, login: str, keep: bool) -> None:
        if login not in self.of:
            return
        own = [token for token, (of, _, _) in self.open.items() if of == login]
        kept = own[-1] if keep and own else ""
        self.accounts.set_password(self.of[login], "another", kept)
        for token in own:
            if token != kept:
                del self.open[token]

    @rule(login=st.sampled_from(LOGINS))
    def leave_and_come_back(self, login: str) -> None:
        """Whoever left is shut out, and the log-in is somebody else's then."""
        if (account := self.of.pop(login, None)) is None:
            self.of[login] = self.accounts.add(login, "Another", "viewer", "secret")
            return
        self.accounts.leave(account, self.now)
        self.open = {token: about for token, about in self.open.items() if about[0] != login}

    @invariant()
    def everybody_sees_their_own_sessions(self) -> None:
        for login, account in getattr(self, "of", {}).items():
            listed = {session.token for session in self.accounts.sessions(account, self.now)}
            ought = {token for token, (of, _, _) in self.open.items() if of == login and self.alive(token)}
            assert listed == ought, (login, listed, ought)


class InvitationsMachine(OnADatabase):
    """`open` is what ought to be usable: by key the level and the end."""

    @initialize()
    def people(self) -> None:
        self.marlo = self.accounts.add("marlo", "Marlo", "broadcaster", "secret")
        self.open: dict[str, tuple[int, str, int]] = {}
        self.made, self.joined = 0, 0

    @rule(level=st.sampled_from(["viewer", "moderator", "lead"]), days=st.integers(1, 9))
    def invite(self, level: str, days: int) -> None:
        self.made += 1
        key, ends = f"k{self.made}", self.now + days * 24 * HOUR
        self.open[key] = (self.team.invite(key, level, "note", self.marlo, self.now, ends), level, ends)

    @precondition(lambda self: self.made > 0)
    @rule(data=st.data(), taken=st.booleans())
    def accept(self, data: st.DataObject, taken: bool) -> None:
        key = f"k{data.draw(st.integers(1, self.made))}"
        usable = key in self.open and self.open[key][2] > self.now
        login = "marlo" if taken else f"new{self.joined}"
        try:
            account = self.team.accept(key, login, "New", "secret", self.now)
        except StoreError:
            assert usable and taken  # and the invitation is not used up by it
            return
        assert (account is not None) == usable
        if account:
            self.joined += 1
            assert account.level == self.open.pop(key)[1]

    @precondition(lambda self: self.made > 0)
    @rule(data=st.data())
    def withdraw(self, data: st.DataObject) -> None:
        key = f"k{data.draw(st.integers(1, self.made))}"
        id = self.open[key][0] if key in self.open else 0
        assert self.team.withdraw(id) == (key in self.open)
        self.open.pop(key, None)

    @invariant()
    def the_list_is_what_may_be_used(self) -> None:
        listed = {one.id for one in self.team.open_invitations(self.now)}
        ought = {id for id, _, ends in getattr(self, "open", {}).values() if ends > self.now}
        assert listed == ought
        assert len(self.accounts.here()) == getattr(self, "joined", -1) + 1


class TestSessions(SessionsMachine.TestCase):  # type: ignore[misc]
    settings = FEW


class TestInvitations(InvitationsMachine.TestCase):  # type: ignore[misc]
    settings = FEW


if __name__ == "__main__":
    unittest.main()
