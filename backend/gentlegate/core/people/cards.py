"""What is known of a person over all their accounts; who is found by a name."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from gentlegate.core.events import EVERYONE, FOLLOWER, LEAD, LEVELS, REGULAR, Person
from gentlegate.core.judge import passes
from gentlegate.core.judge.ladder import standing
from gentlegate.core.parts import Parts
from gentlegate.core.people.identity import BADGE_LEVELS, Directory
from gentlegate.core.records import AccountRecord, Act, PersonRecord
from gentlegate.core.state import State
from gentlegate.core.text.folding import fold_name

MOST_ALIKE = 5


@dataclass(frozen=True, slots=True)
class Account:
    """One account of a person: `key` is the person string under which it stands; `seen` is None where it never was."""

    key: str
    platform: str
    login: str
    name: str
    seen: AccountRecord | None


@dataclass(frozen=True, slots=True)
class Why:
    """One thing that gives a person a level: a `badge` on a `platform`, `follows`, or a `list` of the channel's."""

    level: str
    by: str
    platform: str | None = None


@dataclass(frozen=True, slots=True)
class Strike:
    """Strikes added at one moment; `until` is when they expire, and whether they still count."""

    at: int
    count: int
    until: int
    stands: bool


@dataclass(frozen=True, slots=True)
class Card:
    """A person: accounts (the one asked for first), level and why, strikes, acts (newest first), pass, lists."""

    identity: str
    accounts: list[Account]
    alike: list[Account]
    level: str
    why: list[Why]
    strikes: list[Strike]
    standing: int
    acts: list[Act]
    passes: dict[str, int | None]
    lists: list[str]


def person_of(key: str, record: AccountRecord) -> Person:
    """An account as it was last seen."""
    platform, _, id = key.partition(":")
    badges = frozenset(record.badges)
    return Person(platform, id, record.login, record.name, badges, record.follows_since)


def account_of(state: State, written: str) -> Account:
    """The account that a person string means: `platform:id` or `platform:@login`."""
    platform, _, rest = written.partition(":")
    if rest.startswith("@"):
        for key, record in state.accounts.named(fold_name(rest[1:])):
            if key.startswith(f"{platform}:") and fold_name(record.login) == fold_name(rest[1:]):
                return Account(key, platform, record.login, record.name, record)
        return Account(written, platform, rest[1:], rest[1:], None)
    known = state.accounts.get(written)
    login = known.login if known else rest.removeprefix("u-")
    return Account(written, platform, login, known.name if known else login, known)


def card(parts: Parts, written: str, now: int) -> Card:
    """Everything that the gate remembers of a person, by a person string of theirs."""
    accounts = _accounts(parts, written)
    identity = identity_of(parts.directory, accounts[0])
    record = parts.state.people.get(identity)
    why = _why(parts, accounts, record)
    memory = parts.kit.ladder.memory
    strikes = [Strike(at, count, at + memory, now - at < memory) for at, count in record.strikes] if record else []
    pass_ = parts.state.passes.get(identity)
    running = {key: end for key, end in pass_.filters.items() if passes.covers(parts.state, identity, key, now)} if pass_ else {}  # fmt: skip
    lists = [name for name in ("regulars", "leads", "ignored") if _listed(parts, name, accounts)]
    return Card(
        identity=identity,
        accounts=accounts,
        alike=_alike(parts, accounts),
        level=max((one.level for one in why), key=LEVELS.index, default="everyone"),
        why=why,
        strikes=strikes[::-1],
        standing=standing(record, parts.kit.ladder, now),
        acts=list(reversed(record.acts)) if record else [],
        passes=running,
        lists=lists,
    )


def keys_of(parts: Parts, written: str) -> list[str]:
    """Every account of a person as it stands in records."""
    return [account.key for account in _accounts(parts, written)]


def _accounts(parts: Parts, written: str) -> list[Account]:
    first = account_of(parts.state, written)
    linked = parts.directory.linked(_as_person(first)) or []
    others = [account_of(parts.state, one) for one in linked]
    return [first, *(one for one in others if one.key != first.key)]


def _as_person(account: Account) -> Person:
    if account.seen:
        return person_of(account.key, account.seen)
    return Person(account.platform, account.key.partition(":")[2], account.login, account.name)


def identity_of(directory: Directory, account: Account) -> str:
    return directory.identity(_as_person(account))


def _why(parts: Parts, accounts: list[Account], record: PersonRecord | None) -> list[Why]:
    """What gives this person a level, the highest first."""
    found = [
        Why(LEVELS[BADGE_LEVELS[badge]], "badge", account.platform)
        for account in accounts
        for badge in (account.seen.badges if account.seen else ())
        if badge in BADGE_LEVELS
    ]
    for name, level in (("leads", LEAD), ("regulars", REGULAR)):
        if _listed(parts, name, accounts):
            found.append(Why(LEVELS[level], "list"))
    if (record and record.follows) or any(one.seen and one.seen.follows_since is not None for one in accounts):
        found.append(Why(LEVELS[FOLLOWER], "follows"))
    return sorted(found, key=lambda why: -LEVELS.index(why.level)) or [Why(LEVELS[EVERYONE], "nothing")]


def _listed(parts: Parts, name: str, accounts: list[Account]) -> bool:
    listed = getattr(parts.directory, name)
    return any(parts.directory.holds(listed, _as_person(account)) for account in accounts)


def _alike(parts: Parts, accounts: list[Account]) -> list[Account]:
    """Accounts of the same name on other platforms, which may be the same person's."""
    mine = {account.key for account in accounts}
    platforms = {account.platform for account in accounts}
    found: dict[str, Account] = {}
    for name in {fold_name(name) for account in accounts for name in (account.login, account.name)}:
        for key, record in parts.state.accounts.named(name):
            platform = key.partition(":")[0]
            if key not in mine and platform not in platforms:
                found[key] = Account(key, platform, record.login, record.name, record)
    return [found[key] for key in sorted(found)][:MOST_ALIKE]


def suggestions(parts: Parts, most: int) -> list[list[Account]]:
    """Accounts of one name on several platforms that are not linked, those seen last first; perhaps one person's.

    Only names whom the channel knows somewhere by a badge, a list or their following: a flood brings its names to
    several platforms too.
    """
    found: dict[tuple[str, ...], list[Account]] = {}
    for keys in parts.state.accounts.shared_names():
        accounts = [account_of(parts.state, key) for key in keys]
        if len({account.platform for account in accounts}) < len(accounts):
            continue
        people = [person_of(one.key, one.seen) for one in accounts if one.seen]
        linked = len({parts.directory.identity(person) for person in people}) < len(people)
        if not linked and any(parts.directory.level(person, False) > EVERYONE for person in people):
            found[tuple(keys)] = accounts
    newest = sorted(found.values(), key=lambda group: -max(one.seen.stream for one in group if one.seen))
    return newest[:most]


def named(accounts: Iterable[tuple[str, AccountRecord]], wanted: str) -> list[str]:
    """Those with these folded letters in a name of theirs, earlier ones too; where it begins with them first."""
    found = []
    for key, record in accounts:
        names = [record.login, record.name, *(name for had in record.had for name in had[:2])]
        places = [place for name in names if (place := fold_name(str(name)).find(wanted)) >= 0]
        if places:
            found.append((min(places), record.login, key))
    return [key for _, _, key in sorted(found)]


def with_strikes(parts: Parts, now: int) -> list[str]:
    """Identities on which strikes stand, those with most first."""
    found = [(standing(record, parts.kit.ladder, now), key) for key, record in parts.state.people.items()]
    return [key for count, key in sorted(found, reverse=True) if count]


def forget(state: State, keys: Iterable[str], identity: str) -> None:
    """Remember these accounts no more: names, strikes, acts, passes, cooldowns, arrivals."""
    gone = {*keys, identity}
    for key in gone:
        state.accounts.drop(key)
        state.people.drop(key)
        state.passes.drop(key)
    for uses in (state.uses, state.arrived):
        for key, _ in list(uses.items()):
            if gone.intersection(key.split("\t")):
                uses.drop(key)
