"""Joining a platform in the browser: what is missing is said with what to do, until a reply has come back."""

from __future__ import annotations

from gentlegate.demo.prepare import PASSWORD
from tests.support.browser import Browser
from tests.support.rooms import InRooms


class Joining(InRooms):
    def card(self, browser: Browser, platform: str = "brook") -> str:
        return browser.text(f"[data-platform={platform}]")

    def test_from_rights_that_are_missing_to_a_reply_that_came_back(self) -> None:
        browser = self.open("/setup/platforms")
        self.world.trouble("brook", rights=False)
        browser.wait(lambda: "The Gatekeeper is no moderator there" in self.card(browser))
        words = browser.find("#rights-brook").get_attribute("value")
        self.world.type(str(words), "marlo_finch", "broadcaster")
        browser.wait(lambda: "no moderator" not in self.card(browser))
        browser.button("Send a test reply", "[data-platform=brook]").click()
        browser.wait(lambda: "said by Gatekeeper" in self.card(browser))
        browser.wait(lambda: "Ready." in self.card(browser))
        self.assertIn("Test by Odalys: the gate can be read here.", self.world.texts())

    def test_a_connection_in_trouble_is_named_and_checked(self) -> None:
        browser = self.open("/setup/platforms")
        self.world.trouble("plaza", broken=True)
        browser.button("Check now", "[data-platform=plaza]").click()
        browser.wait(lambda: "does not let the gate in" in self.card(browser, "plaza"))
        self.world.trouble("plaza", broken=False)
        browser.button("Check now", "[data-platform=plaza]").click()
        browser.wait(lambda: "It goes on when the stream begins" in self.card(browser, "plaza"))

    def test_only_the_broadcaster_connects(self) -> None:
        browser = self.open("/setup/platforms")
        browser.wait(lambda: "Check now" in self.card(browser))
        self.assertNotIn("Connect anew", self.card(browser))
        marlo = Browser()
        self.addCleanup(marlo.close)
        marlo.log_in(self.world.address, "marlo", PASSWORD)
        self.open("/setup/platforms", marlo)
        marlo.button("Connect anew", "[data-platform=lantern]").click()
        marlo.find("[data-platform=lantern] [aria-label=Address]").send_keys(self.world.playhouse_address)
        marlo.find("[data-platform=lantern] [aria-label=Token]").send_keys("wrong")
        marlo.button("Connect", "[data-platform=lantern] .invite").click()
        marlo.wait(lambda: "does not let the gate in" in self.card(marlo, "lantern"))
        self.assertIn("this key does not let you in", self.card(marlo, "lantern"))
