"""Who may do what: the levels are a ladder, and what the broadcaster moves is all that moves."""

from __future__ import annotations

import itertools
import unittest

from hypothesis import given
from hypothesis import strategies as st

from gentlegate.core.team import DESK_LEVELS, MOVABLE, NEEDED, TEAM, Account, Permissions

MOVES = st.dictionaries(st.sampled_from(sorted(MOVABLE)), st.sampled_from(["moderator", "lead"]))


def of_level(level: str) -> Account:
    return Account(1, "sam", "Sam", level, None)


class Levels(unittest.TestCase):
    @given(MOVES)
    def test_a_higher_level_may_all_that_a_lower_one_may(self, moved: dict[str, str]) -> None:
        permissions = Permissions(moved)
        may = [set(permissions.of(of_level(level))) for level in DESK_LEVELS]
        for lower, higher in itertools.pairwise(may):
            self.assertLessEqual(lower, higher)
        self.assertEqual(may[-1], set(NEEDED))
        self.assertEqual(may[0], {"look"})

    @given(MOVES)
    def test_moving_moves_that_and_nothing_else(self, moved: dict[str, str]) -> None:
        permissions, usual = Permissions(moved), Permissions()
        for act in NEEDED:
            self.assertEqual(permissions.level(act), moved.get(act, usual.level(act)))
            for level in DESK_LEVELS:
                account = of_level(level)
                self.assertEqual(permissions.may(account, act), act in permissions.of(account))

    def test_the_team_and_looking_stay_where_they_are(self) -> None:
        self.assertEqual(MOVABLE & {*TEAM, "look"}, set())
        self.assertEqual(
            {act for act, level in NEEDED.items() if level == "broadcaster"}, {"team", "platforms", "erase"}
        )
