"""The team in the browser: invited, joined, moved to another level, let go."""

from __future__ import annotations

import unittest
from typing import ClassVar

from selenium.webdriver.support.ui import Select

from gentlegate.demo.prepare import PASSWORD
from tests.support.browser import Browser
from tests.support.world import World

OWN = "clay is patient"


class Team(unittest.TestCase):
    world: ClassVar[World]
    marlo: ClassVar[Browser]

    @classmethod
    def setUpClass(cls) -> None:
        cls.world = World().start()
        cls.marlo = Browser()
        cls.marlo.log_in(cls.world.address, "marlo", PASSWORD)

    @classmethod
    def tearDownClass(cls) -> None:
        cls.marlo.close()
        cls.world.stop()

    def new_browser(self) -> Browser:
        browser = Browser()
        self.addCleanup(browser.close)
        return browser

    def choose(self, css: str, value: str) -> None:
        Select(self.marlo.find(css)).select_by_value(value)

    def link(self, level: str, note: str) -> str:
        self.marlo.driver.get(f"{self.world.address}/setup/team")
        self.choose(".invite select", level)
        self.marlo.find(".invite input").send_keys(note)
        self.marlo.button("Make a link").click()
        return str(self.marlo.find("#invitation-link").get_attribute("value"))

    def join(self, browser: Browser, link: str, login: str) -> None:
        browser.driver.get(link)
        browser.wait_text("Marlo Finch invites you to Kiln & Kettle")
        browser.find("#name").send_keys(login.title())
        browser.find("#login").send_keys(login)
        browser.find("#password").send_keys(OWN)
        browser.find("form button[type=submit]").click()
        browser.find(".lintel")

    def test_from_an_invitation_to_being_let_go(self) -> None:
        juno = self.new_browser()
        link = self.link("moderator", "Juno")
        self.join(juno, link, "juno")
        juno.find("[aria-label='One more: mugs pulled']").click()
        juno.wait_text("by Juno, just now", "[data-counter=mugs]")
        second = self.new_browser()
        second.driver.get(link)
        second.wait_text("This invitation was used already")

        self.marlo.wait_text("here", "[data-login=juno]")
        self.choose("[aria-label='Level of Juno']", "viewer")
        juno.wait(lambda: not juno.all("[aria-label='One more: mugs pulled']"))
        juno.wait_text("mugs pulled", ".bench")

        self.marlo.button("Let go", "[data-login=juno]").click()
        self.marlo.button("Let go now", "[data-login=juno]").click()
        juno.wait(lambda: juno.all("#password"))
        self.marlo.wait(lambda: not self.marlo.all("[data-login=juno]"))

    def test_who_somebody_is_in_chat(self) -> None:
        fern = self.new_browser()
        self.join(fern, self.link("moderator", "Fern"), "fern")
        self.world.type("good evening", "fernpots", "moderator")
        row = "[data-login=fern]"
        self.marlo.button("Say who", row).click()
        field = self.marlo.find(f"{row} input")
        field.clear()
        field.send_keys("nobody_like_this")
        self.marlo.button("Take it", row).click()
        self.marlo.wait_text("knows nobody with this log-in", row)
        field.clear()
        field.send_keys("fernpots")
        self.marlo.button("Take it", row).click()
        self.marlo.wait_text("fernpots on Brook", row)
        self.world.type("!count boils +1", "fernpots", "moderator")
        self.marlo.driver.get(f"{self.world.address}/records")
        self.marlo.wait_text("Fern in chat counted · boils", ".ledger")

    def test_a_permission_is_moved_for_everybody_at_once(self) -> None:
        bram = self.new_browser()
        bram.log_in(self.world.address, "bram", PASSWORD)
        bram.find("[aria-label='One more: pots lost']")
        self.marlo.driver.get(f"{self.world.address}/setup/team")
        self.choose("[aria-label='Move counters']", "lead")
        bram.wait(lambda: not bram.all("[aria-label='One more: pots lost']"))
        self.choose("[aria-label='Move counters']", "moderator")
        bram.find("[aria-label='One more: pots lost']")

    def test_another_session_is_ended(self) -> None:
        here, there = self.new_browser(), self.new_browser()
        for browser in (here, there):
            browser.log_in(self.world.address, "wren", PASSWORD)
        here.driver.get(f"{self.world.address}/setup/sessions")
        here.wait(lambda: len(here.all(".session")) == 2)
        here.button("Log it out").click()
        there.wait(lambda: there.all("#password"))
        here.wait(lambda: len(here.all(".session")) == 1)

    def test_the_ledger_says_who_and_takes_back(self) -> None:
        browser = self.new_browser()
        browser.log_in(self.world.address, "odalys", PASSWORD)
        with self.world.client("odalys") as client:
            body = {"command": {"name": "apron", "reply": "Sewn by a friend."}, "revision": None}
            client.put("/api/commands/apron", json=body).raise_for_status()
        self.world.type("!count boils +1", "wren", "moderator", platform="lantern")
        browser.driver.get(f"{self.world.address}/records")
        browser.wait_text("Odalys at the Desk changed · command apron", ".ledger")
        browser.wait_text("counted · boils · 0 → 1", ".ledger")
        Select(browser.find("[aria-label='By whom']")).select_by_visible_text("Wren")
        browser.wait(lambda: "command apron" not in browser.text(".ledger"))
        browser.wait_text("in chat", ".ledger")
        Select(browser.find("[aria-label='By whom']")).select_by_visible_text("Everybody")
        browser.find(".list-head input").send_keys("apron")
        browser.wait(lambda: len(browser.all(".ledger li")) == 1)
        browser.button("Before and after", ".ledger").click()
        browser.wait_text("Sewn by a friend.", ".sides")
        browser.button("Take back", ".ledger").click()
        browser.wait_text("Taken back; this is a new entry.", ".notices")
        browser.wait(lambda: len(browser.all(".ledger li")) == 2)
        browser.wait_text("taken back", ".ledger li:first-child")
        search = browser.find(".list-head input")
        search.clear()
        search.send_keys("boils")
        browser.wait_text("counted · boils · 0 → 1", ".ledger")
        browser.button("Take back", ".ledger").click()
        browser.wait_text("counted · boils · 1 → 0", ".ledger")
