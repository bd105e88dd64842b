"""What the broadcaster does seldom, in the browser: a name for the Gatekeeper, a password, a removal; and coming back."""

from __future__ import annotations

import unittest
from typing import ClassVar

from gentlegate.demo.prepare import PASSWORD
from tests.support.browser import Browser
from tests.support.world import World, eventually

OTHER = "clay is patient"


class Seldom(unittest.TestCase):
    world: ClassVar[World]

    @classmethod
    def setUpClass(cls) -> None:
        cls.world = World().start()

    @classmethod
    def tearDownClass(cls) -> None:
        cls.world.stop()

    def browser(self, login: str, password: str = PASSWORD) -> Browser:
        browser = Browser()
        self.addCleanup(browser.close)
        browser.log_in(self.world.address, login, password)
        return browser

    def test_the_gatekeeper_is_called_something_else(self) -> None:
        marlo = self.browser("marlo")
        marlo.driver.get(f"{self.world.address}/setup/platforms")
        field = marlo.find("#shown-brook")
        field.clear()
        field.send_keys("Kiln Keeper")
        marlo.button("Call it that", "[data-platform=brook]").click()
        marlo.wait_text("It is called Kiln Keeper there now.", ".notices")
        marlo.button("Send a test reply", "[data-platform=brook]").click()
        marlo.wait_text("said by Kiln Keeper", "[data-platform=brook]")

    def test_another_password_that_is_hard_to_guess(self) -> None:
        wren = self.browser("wren")
        wren.driver.get(f"{self.world.address}/setup/sessions")
        wren.find("#password-old").send_keys(PASSWORD)
        fresh = wren.find("#password-new")
        fresh.send_keys("password123")
        wren.button("Change it").click()
        wren.wait_text("one of the first that would be tried", ".password-form")
        fresh.clear()
        fresh.send_keys(OTHER)
        wren.button("Change it").click()
        wren.wait_text("Your password is changed", ".notices")
        self.browser("wren", OTHER).find(".feed")

    def test_what_somebody_said_is_removed_for_good(self) -> None:
        self.world.type("please forget this", "leaving_soon")
        marlo = self.browser("marlo")
        marlo.wait_text("please forget this", ".feed")
        desk = self.browser("bram")
        desk.wait_text("please forget this", ".feed")
        marlo.driver.get(f"{self.world.address}/people/card/brook:u-leaving_soon")
        marlo.button("Remove all about leaving_soon").click()
        marlo.wait_text("What they said cannot be brought back.", ".erase")
        marlo.button("Remove it").click()
        marlo.wait_text("1 line is gone.", ".notices")
        desk.wait(lambda: "please forget this" not in desk.text(".feed"))

    def test_who_comes_back_mid_stream_is_shown_what_they_missed(self) -> None:
        self.browser("odalys").close()
        eventually(lambda: self.world.rows("SELECT here_at FROM accounts WHERE login = 'odalys'")[0][0])
        hour = "UPDATE accounts SET here_at = here_at - 3600 * 1000000 WHERE login = 'odalys'"
        self.world.change(hour)
        with self.world.client("bram") as bram:
            bram.post("/api/desk/count", json={"name": "boils", "step": "=3"}).raise_for_status()
        odalys = self.browser("odalys")
        odalys.driver.refresh()
        odalys.wait_text("Bram counted · boils", ".hand-over")
        odalys.button("I have seen it").click()
        odalys.wait(lambda: not odalys.all(".hand-over"))
        odalys.driver.refresh()
        odalys.find(".line, .feed")
        self.assertEqual(odalys.all(".hand-over"), [])
