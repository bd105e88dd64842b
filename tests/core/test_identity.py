from __future__ import annotations

import unittest
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from gentlegate.core.events import (
    BROADCASTER,
    EVERYONE,
    FOLLOWER,
    LEAD,
    LEVELS,
    MODERATOR,
    REGULAR,
    SUBSCRIBER,
    VIP,
    Happening,
    Person,
)
from gentlegate.core.kit.load import load_kit
from gentlegate.core.people.identity import Directory
from gentlegate.core.platforms import Abilities, abilities_of
from tests.support.logs import at, person, run, said, says

FOLLOWERS = {"commands": [{"name": "tea", "reply": "poured", "needs": {"level": "follower"}, "cooldown": "none"}]}


def directory(**people: Any) -> Directory:
    return Directory(load_kit({"people": people}))


class Levels(unittest.TestCase):
    def test_the_highest_that_holds(self) -> None:
        lists = directory(regulars=["brook:u-r", "brook:u-m"], leads=["lantern:@l"])
        for login, badges, follows, level in (
            ("x", (), False, EVERYONE),
            ("x", (), True, FOLLOWER),
            ("x", ("bot",), False, EVERYONE),
            ("r", (), True, REGULAR),
            ("r", ("subscriber",), False, SUBSCRIBER),
            ("x", ("subscriber", "vip"), False, VIP),
            ("m", ("moderator", "vip"), True, MODERATOR),
            ("x", ("broadcaster",), False, BROADCASTER),
        ):
            with self.subTest(login=login, badges=badges):
                self.assertEqual(lists.level(person(login, badges=badges), follows), level)
        self.assertEqual(lists.level(person("L", "lantern"), False), LEAD)
        self.assertEqual(lists.level(person("l", "brook"), False), EVERYONE)

    def test_lists_reach_linked_accounts_badges_do_not(self) -> None:
        lists = directory(leads=["brook:u-wren"], linked=[["brook:u-wren", "lantern:@wren"]])
        self.assertEqual(lists.level(person("wren", "lantern"), False), LEAD)
        plain = directory(linked=[["brook:u-wren", "lantern:@wren"]])
        self.assertEqual(plain.level(person("wren", "lantern"), False), EVERYONE)

    def test_following_is_remembered_and_shared_over_links(self) -> None:
        kit = FOLLOWERS | {"people": {"linked": [["brook:u-a", "lantern:@b"]]}}
        follow = Happening(at(1), "brook", "follow", person("a"))
        self.assertEqual(said(run(kit, says(0, "!tea", "a"))), [])
        self.assertEqual(
            said(run(kit, follow, says(2, "!tea", "a"), says(3, "!tea", "b", platform="lantern"))), ["poured"] * 2
        )

    def test_names_of_levels_are_in_order(self) -> None:
        self.assertEqual(LEVELS[0], "everyone")
        self.assertEqual(LEVELS.index("lead"), LEAD)


class Identities(unittest.TestCase):
    def test_linked_accounts_are_one_by_id_or_login(self) -> None:
        linked = directory(linked=[["brook:17", "lantern:@Moss"]])
        by_id = Person("brook", "17", "other", "Other")
        by_login = Person("lantern", "4", "MOSS", "Moss")
        self.assertEqual(linked.identity(by_id), linked.identity(by_login))
        self.assertEqual(linked.identity_of("brook:17"), linked.identity(by_login))
        self.assertEqual(linked.identity(Person("lantern", "17", "x", "X")), "lantern:17")

    @given(st.text("ab:@", min_size=1, max_size=6))
    def test_unlinked_people_are_themselves(self, id: str) -> None:
        someone = Person("brook", id, "x", "X")
        self.assertEqual(directory().identity(someone), f"brook:{id}")


class TimeoutLengths(unittest.TestCase):
    def test_the_nearest_longer_value_or_the_longest(self) -> None:
        steps = Abilities(timeout_values=(15, 60, 360))
        ranged = Abilities(timeout_range=(5, 100))
        for wanted, by_steps, by_range in (
            (1, 15, 5),
            (15, 15, 15),
            (16, 60, 16),
            (361, 360, 100),
            (10**9, 360, 100),
        ):
            with self.subTest(wanted):
                self.assertEqual((steps.timeout(wanted), ranged.timeout(wanted)), (by_steps, by_range))

    @given(st.lists(st.integers(1, 10**6), min_size=1, unique=True), st.integers(1, 10**6))
    def test_never_shorter_than_wanted_unless_there_is_none(self, values: list[int], wanted: int) -> None:
        given_ = Abilities(timeout_values=tuple(sorted(values))).timeout(wanted)
        self.assertIn(given_, values)
        self.assertTrue(given_ >= wanted or given_ == max(values))

    def test_a_kits_platform_is_read(self) -> None:
        platform = load_kit(
            {"platforms": {"lantern": {"timeout": [60, 15], "private": False, "title": 96}}}
        ).platforms["lantern"]
        self.assertEqual(abilities_of(platform), Abilities(private=False, title=96, timeout_values=(15, 60)))
