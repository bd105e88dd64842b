"""A world with a moderator's and a lead's browser in it, for journeys of two."""

from __future__ import annotations

import unittest
from typing import ClassVar

from gentlegate.demo.prepare import PASSWORD
from tests.support.browser import Browser
from tests.support.world import World


class TwoBrowsers(unittest.TestCase):
    """`bram` is a moderator's browser, `odalys` a lead's; both are logged in."""

    world: ClassVar[World]
    bram: ClassVar[Browser]
    odalys: ClassVar[Browser]

    @classmethod
    def setUpClass(cls) -> None:
        cls.world = World().start()
        cls.bram, cls.odalys = Browser(), Browser()
        cls.bram.log_in(cls.world.address, "bram", PASSWORD)
        cls.odalys.log_in(cls.world.address, "odalys", PASSWORD)

    @classmethod
    def tearDownClass(cls) -> None:
        for part in (cls.bram, cls.odalys):
            part.close()
        cls.world.stop()
