"""The engine's parts under one kit: made anew with each change of settings, over a state that stays."""

from __future__ import annotations

import random
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Protocol
from zoneinfo import ZoneInfo

from gentlegate.core.builtins.catalogue import BUILT_INS
from gentlegate.core.changes import Changes
from gentlegate.core.commands.cooldowns import Cooldowns, settle
from gentlegate.core.commands.cues import CueEar
from gentlegate.core.commands.hearing import Ear
from gentlegate.core.counters import Counters
from gentlegate.core.effects import Effect
from gentlegate.core.events import BROADCASTER, Person
from gentlegate.core.judge.judge import Judge
from gentlegate.core.kit.commands import BuiltIn, Command, Cooldown, Cue, Needs
from gentlegate.core.kit.model import ChannelEntry, Kit, Rota
from gentlegate.core.kit.names import looks_like
from gentlegate.core.people.identity import LEVEL_OF, Directory
from gentlegate.core.platforms import Abilities, abilities_of
from gentlegate.core.records import AccountRecord, AskRecord
from gentlegate.core.state import State
from gentlegate.core.streams import Streams
from gentlegate.core.text.folding import fold_name


class Finish(Protocol):
    """Goes on with an ask that every platform has answered."""

    def __call__(self, record: AskRecord, now: int) -> list[Effect]: ...


class AskedRotas(Protocol):
    """What a moderator asks of the rotas."""

    def pause(self, rota: Rota, paused: bool, now: int) -> bool: ...

    def wanted_next(self, rota: Rota | None) -> Rota: ...

    def post_next(self, rota: Rota, now: int) -> list[Effect]: ...


_ANY = Abilities()


@dataclass(frozen=True, slots=True)
class Slot:
    """A command or built-in as it is used: `key` in records, `shown` as it is typed."""

    key: str
    shown: str
    names: tuple[str, ...]
    needs: Needs
    cooldown: Cooldown
    on: bool
    when: str = "always"
    platforms: tuple[str, ...] | None = None
    command: Command | None = None
    sets_needs: Needs | None = None


@dataclass(frozen=True, slots=True)
class Known:
    """What settings say of a person: `unheard` are the Gatekeeper and other bots."""

    person: Person
    identity: str
    level: int
    unheard: bool


MOST_KNOWN = 50_000


class Parts:
    """Everything that settings make, ready for use."""

    def __init__(self, kit: Kit, state: State, seed: int, declared: Mapping[str, Abilities]) -> None:
        self.kit = kit
        self.state = state
        self.seed = seed
        self._abilities = {name: abilities_of(platform) for name, platform in kit.platforms.items()} | dict(
            declared
        )
        self.directory = Directory(kit)
        self.streams = Streams(state, kit.channel.stream_gap)
        self.judge = Judge(kit, self.directory, state)
        self._siege: Judge | None = None
        self._known: dict[str, Known] = {}
        self.rotas: AskedRotas
        self.finish: Finish
        self.can_ask = False
        """Whether platforms can be asked; where not, the kit's `platforms` section answers."""
        self.zone = ZoneInfo(kit.channel.timezone)
        self.changes: Changes
        self.counters = Counters(kit, state)
        self.cooldowns = Cooldowns(state)
        self.slots = {slot.key: slot for slot in _slots(kit)}
        self.cues = [_cue_slot(cue, kit.channel.cooldown) for cue in kit.cues]
        self.cue_ear = CueEar(kit.cues)
        self.ear = Ear(kit.channel.prefix, {fold_name(n): s.key for s in self.slots.values() for n in s.names})
        self.cooldown_of = {slot.key: slot.cooldown for slot in (*self.slots.values(), *self.cues)}

    @property
    def siege(self) -> Judge:
        """The judge while the drawbridge is up: mood Library, newcomers held back."""
        if self._siege is None:
            filters = self.kit.filters
            newcomers = filters.newcomers.model_copy(update={"on": True})
            kit = self.kit.model_copy(update={"filters": filters.model_copy(update={"newcomers": newcomers})})
            self._siege = Judge(kit, self.directory, self.state, "library")
        return self._siege

    def abilities(self, platform: str) -> Abilities:
        return self._abilities.get(platform, _ANY)

    def platform_names(self) -> list[str]:
        """Every platform that the kit, a connector or the log has named, in order."""
        return sorted({*self._abilities, *(name for name, _ in self.state.platforms.items())})

    def title(self, platform: str) -> str | None:
        record = self.state.platforms.get(platform)
        return record.title if record else None

    def category(self, platform: str) -> str | None:
        record = self.state.platforms.get(platform)
        return record.category if record else None

    def find_account(self, name: str, platform: str) -> tuple[str, AccountRecord] | None:
        """The account that somebody means by a name, with or without @: on this platform first, logins first."""
        wanted = fold_name(name.strip().lstrip("@"))
        found = [
            ((key.partition(":")[0] != platform, fold_name(account.login) != wanted, -account.stream), key, account)
            for key, account in self.state.accounts.named(wanted)
        ]
        return min(found, key=lambda one: one[:2])[1:] if found else None

    def find_channel(self, name: str, platform: str) -> ChannelEntry | None:
        """The channel of this log-in or name in a platform's directory, as far as the settings hold one."""
        wanted = fold_name(name.strip().lstrip("@"))
        section = self.kit.platforms.get(platform)
        for entry in section.channels if section else ():
            if wanted in (fold_name(entry.login), fold_name(entry.name or "")):
                return entry
        return None

    def find_slot(self, name: str) -> Slot | None:
        """The command or built-in of this name or alias."""
        key = self.ear.key_of(name)
        return None if key is None else self.slots[key]

    def owner_of(self, name: str) -> str | None:
        """What has this name, in words; None where it is free."""
        slot = self.find_slot(name)
        if slot is None:
            return None
        if slot.command is None:
            return "built in"
        return "a command" if fold_name(slot.shown) == fold_name(name) else f"another name of {slot.shown}"

    def know(self, person: Person) -> Known:
        """Who this is under these settings, worked out once for each account as it is now."""
        known = self._known.get(person.key)
        if known is None or (known.person is not person and known.person != person):
            directory = self.directory
            unheard = directory.unheard(person)
            known = Known(person, directory.identity(person), self.level(person), unheard)
            if len(self._known) >= MOST_KNOWN:
                self._known.clear()
            self._known[person.key] = known
        return known

    def forget(self, person: Person) -> None:
        """What was known of an account has changed."""
        self._known.clear() if self.directory.linked(person) else self._known.pop(person.key, None)

    def forget_all(self) -> None:
        """What was known of every account has changed."""
        self._known.clear()

    def level(self, person: Person) -> int:
        record = self.state.people.get(self.directory.identity(person))
        return self.directory.level(person, bool(record and record.follows))

    def may(self, needs: Needs, person: Person, level: int) -> bool:
        return self.refusal(needs, person, level) is None

    def refusal(self, needs: Needs, person: Person, level: int) -> str | None:
        """`person`, `level` or None, asked in the order broadcaster, never, people, level."""
        if level == BROADCASTER:
            return None
        if self.directory.holds(self.directory.people(needs.never), person):
            return "person"
        if self.directory.holds(self.directory.people(needs.people), person):
            return None
        return None if level >= LEVEL_OF[needs.level] else "level"

    def state_found(self, when: str) -> str | None:
        """`live` or `offline` where that is not what `when` asks for."""
        if when == "always" or (when == "live") == self.streams.live:
            return None
        return "live" if self.streams.live else "offline"

    def chance(self, *about: object) -> random.Random:
        """Chance that is the same for the same seed and occasion, on any machine."""
        return random.Random("|".join(str(part) for part in (self.seed, *about)))


def lookalike_problem(parts: Parts, name: str, own: str | None = None) -> str | None:
    """What to say of a name that would be mistaken for another one; `own` is the key of what would have it."""
    other = looks_like(name, (known for known, key in parts.ear.names.items() if key != own))
    shown = f"{parts.kit.channel.prefix}{other}"
    return other and f"{name} looks like {shown}; viewers could not tell them apart. Choose another name."


def _cue_slot(cue: Cue, default: Cooldown | str) -> Slot:
    return Slot(
        key=f"~{fold_name(cue.name)}",
        shown=cue.name,
        names=(),
        needs=cue.needs,
        cooldown=settle(cue.cooldown, default),
        on=cue.on,
        when=cue.when,
        platforms=None if cue.platforms is None else tuple(cue.platforms),
        command=cue.as_command(),
    )


def _slots(kit: Kit) -> list[Slot]:
    default = kit.channel.cooldown
    slots = [
        Slot(
            key=fold_name(command.name),
            shown=command.name,
            names=(command.name, *command.aliases),
            needs=command.needs,
            cooldown=settle(command.cooldown, default),
            on=command.on,
            when=command.when,
            platforms=None if command.platforms is None else tuple(command.platforms),
            command=command,
        )
        for command in kit.commands
    ]
    for key, entry in BUILT_INS.items():
        setting = kit.built_ins.get(key) or BuiltIn()
        names = tuple(setting.names or entry.names)
        given = setting.needs
        sets = (given or Needs(level=entry.sets_level)) if entry.sets_level else None  # type: ignore[arg-type]
        needs = Needs(level=entry.level) if sets or given is None else given  # type: ignore[arg-type]
        cooldown = settle(setting.cooldown, default)
        slots.append(Slot(f"/{key}", names[0], names, needs, cooldown, setting.on, sets_needs=sets))
    return slots
