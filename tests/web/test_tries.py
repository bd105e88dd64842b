"""How many wrong tries are let through: one after another, at the same moment, from here and from elsewhere."""

from __future__ import annotations

import asyncio
import unittest
from typing import ClassVar

import httpx
from hypothesis import given
from hypothesis import strategies as st

from gentlegate.web.door.tries import BY_ONE, FROM_ONE_PLACE, WITHIN, Tries
from gentlegate.web.problems import Refused
from tests.support.world import World


class Clock:
    now = 0.0

    def __call__(self) -> float:
        return self.now


class Counting(unittest.TestCase):
    def setUp(self) -> None:
        self.clock = Clock()
        self.tries = Tries(self.clock)

    def waits(self, about: str, place: str = "here") -> bool:
        try:
            self.tries.begin(about, place).right()
        except Refused as refused:
            self.assertEqual(refused.problem.status, 429)
            return True
        return False

    def wrong(self, times: int, about: str, place: str = "here") -> None:
        for _ in range(times):
            self.tries.begin(about, place)

    def test_after_a_few_wrong_ones_it_waits_for_a_minute(self) -> None:
        self.wrong(BY_ONE, "bram")
        self.assertTrue(self.waits("bram"))
        self.clock.now = WITHIN - 0.001
        self.assertTrue(self.waits("bram"))
        self.clock.now = WITHIN
        self.assertFalse(self.waits("bram"))

    def test_wrong_ones_from_elsewhere_keep_nobody_out(self) -> None:
        self.wrong(BY_ONE, "bram", "elsewhere")
        self.assertTrue(self.waits("bram", "elsewhere"))
        self.assertFalse(self.waits("bram"))

    def test_one_place_cannot_go_through_many_names(self) -> None:
        for number in range(FROM_ONE_PLACE):
            self.wrong(1, f"name{number}")
        self.assertTrue(self.waits("bram"))
        self.assertFalse(self.waits("bram", "elsewhere"))

    @given(st.lists(st.tuples(st.booleans(), st.integers(0, 20)), max_size=40))
    def test_right_ones_never_count_and_never_more_wrong_ones_than_allowed(
        self, tries: list[tuple[bool, int]]
    ) -> None:
        clock = Clock()
        counted, wrong = Tries(clock), []
        for right, later in tries:
            clock.now += later
            lately = sum(at > clock.now - WITHIN for at in wrong)
            try:
                attempt = counted.begin("bram", "here")
            except Refused:
                self.assertEqual(lately, BY_ONE)
                continue
            self.assertLess(lately, BY_ONE)
            if right:
                attempt.right()
            else:
                wrong.append(clock.now)


class AtTheDoor(unittest.TestCase):
    world: ClassVar[World]

    @classmethod
    def setUpClass(cls) -> None:
        cls.world = World().start(live=False)

    @classmethod
    def tearDownClass(cls) -> None:
        cls.world.stop()

    def test_many_guesses_at_the_same_moment_are_no_way_round(self) -> None:
        async def guess() -> list[int]:
            async with httpx.AsyncClient(base_url=self.world.address, timeout=30, trust_env=False) as client:
                body = {"login": "bram", "password": "a guess at it"}
                answers = await asyncio.gather(*(client.post("/api/session", json=body) for _ in range(30)))
            return [answer.status_code for answer in answers]

        statuses = asyncio.run(guess())
        self.assertEqual((statuses.count(401), statuses.count(429)), (BY_ONE, 30 - BY_ONE))
        with self.world.client("odalys") as odalys:
            self.assertEqual(odalys.get("/api/session").status_code, 200)
