"""A person's card, links that records follow, and two moderators at the same line or person."""

from __future__ import annotations

import unittest
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from gentlegate.core.engine import Engine
from gentlegate.core.errors import ActError, JustDone
from gentlegate.core.events import Event
from gentlegate.core.moments import HOUR
from gentlegate.core.people import cards, linking
from gentlegate.core.text.folding import fold_name
from tests.support.logs import at, desk, live, of, says

BLOCKED = {"filters": {"phrases": {"entries": ["glue gun"]}, "newcomers": {"on": False}}}


def after(kit: dict[str, Any], *events: Event) -> Engine:
    engine = Engine(kit)
    for event in events:
        engine.handle(event)
    return engine


def linked(*groups: list[str]) -> dict[str, Any]:
    return {**BLOCKED, "people": {"linked": list(groups)}}


class Cards(unittest.TestCase):
    def test_names_level_and_why_strikes_and_acts(self) -> None:
        kit = {**BLOCKED, "people": {"regulars": ["brook:@sam"], "linked": [["brook:u-sam", "lantern:u-samlan"]]}}
        engine = after(
            kit,
            live(),
            says(1, "hello", "sam", "subscriber"),
            says(2, "a glue gun", "sam", "subscriber"),
            says(10, "hello there", "samlan", platform="lantern"),
            desk(20, "timeout", person="brook:u-sam", seconds=60),
        )
        card = cards.card(engine.parts, "lantern:u-samlan", at(30))
        self.assertEqual([account.key for account in card.accounts], ["lantern:u-samlan", "brook:u-sam"])
        self.assertEqual((card.level, [why.by for why in card.why]), ("subscriber", ["badge", "list"]))
        self.assertEqual(card.lists, ["regulars"])
        self.assertEqual([(strike.count, strike.stands) for strike in card.strikes], [(1, True)])
        self.assertEqual(
            [(act.outcome, act.by) for act in card.acts], [("timeout", "brook:u-odalys"), ("nudge", None)]
        )
        later = cards.card(engine.parts, "brook:@sam", at(30) + 6 * HOUR)
        self.assertEqual((later.standing, later.strikes[0].stands), (0, False))

    def test_earlier_names_are_kept_and_badges_follow(self) -> None:
        engine = after({}, live(), says(1, "hello", "sam"), says(2, "hello", "sam", "vip"))
        renamed = says(3, "I am new", "sam")
        renamed = type(renamed)(
            renamed.at, "brook", "m-new", type(renamed.person)("brook", "u-sam", "samuel", "Samuel"), "I am new"
        )
        engine.handle(renamed)
        (account,) = cards.card(engine.parts, "brook:u-sam", at(4)).accounts
        assert account.seen
        self.assertEqual((account.login, account.seen.had), ("samuel", [["sam", "Sam", at(3)]]))
        self.assertEqual(account.seen.badges, [])
        self.assertEqual(cards.card(engine.parts, "brook:@samuel", at(4)).accounts[0].key, "brook:u-sam")

    def test_the_same_name_elsewhere_is_suggested_and_never_linked(self) -> None:
        engine = after({}, live(), says(1, "hi", "sam"), says(2, "hi", "sam", platform="lantern"))
        card = cards.card(engine.parts, "brook:u-sam", at(3))
        self.assertEqual([one.key for one in card.alike], ["lantern:u-sam"])
        self.assertEqual(len(card.accounts), 1)


class Finding(unittest.TestCase):
    @settings(max_examples=60, deadline=None)
    @given(
        st.lists(st.sampled_from(["sam", "samwise", "isambard", "lou", "SAM", "Łou"]), max_size=6),
        st.sampled_from(["sam", "am", "lou", "x"]),
    )
    def test_everybody_with_these_letters_and_nobody_else(self, logins: list[str], wanted: str) -> None:
        engine = after({}, live(), *(says(n, "hi", login) for n, login in enumerate(logins, 1)))
        found = cards.named(engine.state.accounts.items(), wanted)
        expected = {
            f"brook:u-{login}"
            for login in logins
            if wanted in fold_name(login) or wanted in fold_name(login.title())
        }
        self.assertEqual(set(found), expected)
        self.assertEqual(len(found), len(set(found)))
        begins = [fold_name(key.partition("-")[2]).startswith(wanted) for key in found]
        self.assertEqual(begins, sorted(begins, reverse=True))

    def test_names_on_several_platforms_until_they_are_linked(self) -> None:
        lines = [
            says(1, "hello", "crowd"),
            says(2, "hello", "crowd", platform="lantern"),
            says(2.5, "hello", "reg", "subscriber"),
            says(2.7, "hello", "reg", platform="lantern"),
            says(3, "hello", "sam", "vip"),
            says(4, "hello", "sam", platform="plaza"),
            says(5, "hello", "alone"),
        ]
        engine = after(BLOCKED, live(), *lines)
        found = [[one.key for one in group] for group in cards.suggestions(engine.parts, 9)]
        self.assertEqual(found, [["brook:u-reg", "lantern:u-reg"], ["brook:u-sam", "plaza:u-sam"]])
        self.assertEqual(len(cards.suggestions(engine.parts, 1)), 1)
        engine = after(linked(["brook:u-sam", "plaza:u-sam"]), live(), *lines)
        cards.forget(engine.state, ["lantern:u-reg"], "lantern:u-reg")
        self.assertEqual(cards.suggestions(engine.parts, 9), [])

    def test_an_earlier_name_is_found_and_forgetting_leaves_nothing(self) -> None:
        engine = after(BLOCKED, live(), says(1, "a glue gun", "sam"), desk(2, "pass", person="brook:u-sam"))
        line = says(3, "new name")
        who = type(line.person)("brook", "u-sam", "pinchpot", "Pinchpot")
        engine.handle(type(line)(line.at, "brook", "renamed", who, "new name"))
        self.assertEqual(cards.named(engine.state.accounts.items(), "sam"), ["brook:u-sam"])
        self.assertEqual(cards.with_strikes(engine.parts, at(4)), ["brook:u-sam"])
        cards.forget(engine.state, ["brook:u-sam"], "brook:u-sam")
        engine.parts.forget_all()
        for wanted in ("sam", "pinch"):
            self.assertEqual(cards.named(engine.state.accounts.items(), wanted), [])
        card = cards.card(engine.parts, "brook:u-sam", at(5))
        self.assertEqual((card.standing, card.acts, card.passes, card.accounts[0].seen), (0, [], {}, None))
        (verdict,) = of(engine.handle(says(6, "a glue gun", "sam")), "verdict")
        self.assertEqual(verdict.strikes, 1)


class Links(unittest.TestCase):
    def test_strikes_are_shared_from_the_link_on_and_go_home_when_it_ends(self) -> None:
        engine = after(
            BLOCKED,
            live(),
            live(0, "lantern"),
            says(1, "a glue gun", "sam"),
            says(20, "a glue gun", "samlan", platform="lantern"),
            desk(30, "setting", path="people.linked", value=[["brook:u-sam", "lantern:u-samlan"]]),
        )
        self.assertEqual(cards.card(engine.parts, "lantern:u-samlan", at(31)).standing, 2)
        (verdict,) = of(engine.handle(says(40, "glue gun again", "samlan", platform="lantern")), "verdict")
        self.assertEqual((verdict.outcome, verdict.strikes), ("timeout", 3))
        engine.handle(desk(50, "setting", path="people.linked", value=None))
        self.assertEqual(cards.card(engine.parts, "brook:u-sam", at(51)).standing, 1)
        self.assertEqual(cards.card(engine.parts, "lantern:u-samlan", at(51)).standing, 2)

    def test_acts_on_people_without_a_line_go_home_too(self) -> None:
        together = [["brook:u-sam", "lantern:u-sam"]]
        engine = after(
            BLOCKED,
            live(),
            says(1, "hi", "sam"),
            says(2, "hi", "sam", platform="lantern"),
            desk(3, "setting", path="people.linked", value=together),
            desk(4, "timeout", person="brook:u-sam", seconds=60),
            desk(5, "ban", person="lantern:u-sam"),
            desk(6, "setting", path="people.linked", value=None),
        )
        brook, lantern = (cards.card(engine.parts, f"{name}:u-sam", at(7)) for name in ("brook", "lantern"))
        self.assertEqual([act.outcome for act in brook.acts], ["timeout"])
        self.assertEqual([act.outcome for act in lantern.acts], ["ban"])

    @settings(max_examples=60, deadline=None)
    @given(st.lists(st.tuples(st.sampled_from(["brook", "lantern", "plaza"]), st.booleans()), max_size=12))
    def test_linking_and_parting_loses_and_invents_nothing(self, said: list[tuple[str, bool]]) -> None:
        every = [f"{platform}:u-sam" for platform in ("brook", "lantern", "plaza")]
        engine = after(BLOCKED, live())
        for number, (platform, together) in enumerate(said):
            groups = [every] if together else None
            engine.handle(desk(number * 20, "setting", path="people.linked", value=groups))
            engine.handle(says(number * 20 + 10, "a glue gun", "sam", platform=platform))
        engine.handle(desk(900, "setting", path="people.linked", value=[every]))
        self.assertEqual(cards.card(engine.parts, every[0], at(901)).standing, len(said))
        engine.handle(desk(910, "setting", path="people.linked", value=None))
        each = [cards.card(engine.parts, key, at(911)).standing for key in every]
        self.assertEqual(each, [sum(key.startswith(p) for p, _ in said) for key in every])

    def test_groups_grow_together_and_one_is_no_group(self) -> None:
        groups = linking.joined([["a", "b"], ["c", "d"], ["x", "y"]], "b", "c")
        self.assertEqual(groups, [["x", "y"], ["a", "b", "c", "d"]])
        self.assertEqual(linking.parted([["a", "b"], ["c", "d", "e"]], "a"), [["c", "d", "e"]])


class TwoHands(unittest.TestCase):
    def first(self, do: str, **values: Any) -> Engine:
        return after({}, live(), says(1, "hm", "sam", id="m"), self.act(2, do, "brook:u-bram", **values))

    def act(self, when: float, do: str, by: str = "brook:u-odalys", **values: Any) -> Event:
        name = by.rpartition("-")[2].title()
        return desk(when, do, by, person="brook:u-sam", name_of_by=name, careful=True, **values)

    def test_the_second_is_told_and_a_stronger_act_goes_on_when_asked(self) -> None:
        engine = self.first("remove", message="m")
        with self.assertRaises(JustDone) as told:
            engine.handle(self.act(5, "ban", message="m"))
        self.assertEqual(
            (told.exception.who, told.exception.outcome, told.exception.goes_on), ("Bram", "remove", True)
        )
        self.assertEqual(
            of(engine.handle(desk(6, "ban", person="brook:u-sam", message="m")), "ban")[0].person, "brook:u-sam"
        )

    def test_a_weaker_or_equal_act_is_told_only(self) -> None:
        for do, seconds in (("timeout", 60), ("timeout", 600)):
            with self.assertRaises(JustDone) as told:
                self.first("timeout", seconds=600).handle(self.act(5, do, seconds=seconds))
            self.assertFalse(told.exception.goes_on)
        with self.assertRaises(JustDone) as told:
            self.first("timeout", seconds=600).handle(self.act(5, "timeout", seconds=3600))
        self.assertTrue(told.exception.goes_on)

    def test_taking_back_what_another_has_just_done_is_told_first(self) -> None:
        engine = self.first("ban")
        for do in ("undo", "lift"):
            with self.assertRaises(JustDone) as told:
                engine.handle(self.act(5, do))
            self.assertTrue(told.exception.goes_on)
        self.assertTrue(of(engine.handle(self.act(23, "undo")), "undone"))

    def test_ones_own_acts_other_lines_and_later_ones_need_no_second_press(self) -> None:
        engine = self.first("remove", message="m")
        engine.handle(says(3, "hm hm", "sam", id="n"))
        self.assertTrue(of(engine.handle(self.act(4, "remove", message="n")), "remove"))
        self.assertTrue(of(self.first("remove", message="m").handle(self.act(3, "ban", "brook:u-bram")), "ban"))
        self.assertTrue(of(self.first("remove", message="m").handle(self.act(22, "ban")), "ban"))
        with self.assertRaises(ActError):
            self.first("remove", message="m").handle(self.act(40, "remove", message="m"))
