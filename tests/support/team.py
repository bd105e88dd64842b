"""A world with a moderator's and a lead's browser in it, for journeys of two."""

from __future__ import annotations

import unittest
from typing import ClassVar

from gentlegate.demo.prepare import PASSWORD
from tests.support.browser import Browser
from tests.support.world import World


def add_account(world: World, login: str, level: str) -> None:
    """Somebody of this level joins by an invitation; the password is everybody's."""
    with world.client("marlo") as marlo, world.client(None) as nobody:
        made = marlo.post("/api/team/invitations", json={"level": level, "note": login}).raise_for_status().json()
        body = {
            "key": made["link"].partition("key=")[2],
            "login": login,
            "name": login.title(),
            "password": PASSWORD,
        }
        nobody.post("/api/join", json=body).raise_for_status()


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
