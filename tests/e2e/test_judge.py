"""The judge through the Desk and the Rules room: why, undo, tuning, tonight, passes, a flood."""

from __future__ import annotations

import re
import unittest

import httpx
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.support.browser import Browser
from tests.support.team import TwoBrowsers
from tests.support.world import eventually

SHOUT = "THIS POT IS SO VERY ROUND AND SO TALL, look"


class TheJudge(TwoBrowsers):
    def desk(self, browser: Browser) -> Browser:
        browser.driver.get(self.world.address)
        browser.find(".feed .line")
        return browser

    def rules(self, browser: Browser, key: str) -> Browser:
        browser.driver.get(f"{self.world.address}/rules/{key}")
        browser.find(".setting-fields")
        return browser

    def press(self, browser: Browser, *keys: str) -> None:
        body = browser.driver.find_element(By.TAG_NAME, "body")
        for key in keys:
            body.send_keys(key)

    def test_wrongly_stopped_why_undo_wrong_and_the_limit_moved_on_the_histogram(self) -> None:
        bram = self.desk(self.bram)
        id = self.world.type(SHOUT, "loudmouth", platform="lantern")
        eventually(lambda: self.world.removed(id, "lantern"))
        bram.choose_line("SO VERY ROUND")
        self.press(bram, "y")
        bram.wait_text("of the letters are capitals; the limit is 80 %.", ".card-over")
        bram.wait_text("at 1 strike · here now", ".card-over .ladder")
        bram.wait_text("at 2 strikes · next", ".card-over .ladder")
        bram.button("Undo", ".card-over").click()
        bram.wait_text("undone by Bram", ".card-over")
        eventually(lambda: not self.world.removed(id, "lantern"))
        bram.button("Wrong", ".card-over").click()
        bram.wait_text("settled: wrong", ".card-over")

        odalys = self.rules(self.odalys, "capitals")
        odalys.wait_text("At this limit", ".consequence")
        odalys.wait_text("SO VERY ROUND", ".consequence")
        slider = odalys.find(".histogram input[type=range]")
        for _ in range(12):
            slider.send_keys(Keys.ARROW_RIGHT)
        odalys.wait_text("92 %", ".consequence [role=status]")
        odalys.wait(lambda: "SO VERY ROUND" not in odalys.text(".consequence"))
        odalys.button("Save", ".setting-fields").click()
        odalys.wait_text("Saved.")
        again = self.world.type(SHOUT, "another_mouth", platform="lantern")
        eventually(lambda: self.world.rows("SELECT 1 FROM events WHERE message = ?", again))
        self.assertFalse(self.world.removed(again, "lantern"))

    def test_a_moderators_change_for_tonight_shows_on_every_screen_and_is_put_back(self) -> None:
        bram = self.rules(self.bram, "links")
        self.desk(self.odalys)
        bram.find("[data-filter=links] input[type=checkbox]").click()
        self.odalys.wait_text("Tonight: Links off", ".lintel")
        id = self.world.type("for tonight: evening.test", "quillwort")
        eventually(lambda: self.world.rows("SELECT 1 FROM events WHERE message = ?", id))
        self.assertFalse(self.world.removed(id))
        self.odalys.button("Tonight: Links off", ".lintel").click()
        self.odalys.wait(lambda: "Tonight" not in self.odalys.text(".lintel"))
        stopped = self.world.type("and now: evening.test", "quillwort")
        eventually(lambda: self.world.removed(stopped))

    def test_a_pass_by_two_keys_stands_on_the_bench_and_lets_a_link_through(self) -> None:
        bram = self.desk(self.bram)
        self.world.type("may I post my notes?", "saltglaze_sam")
        bram.choose_line("may I post my notes")
        self.press(bram, "l", "2")
        bram.wait_text("Links, by Bram", ".panel-passes")
        bram.wait(lambda: re.search(r"pass until \d\d:\d\d", bram.text(".feed")))
        self.press(bram, Keys.ESCAPE)
        id = self.world.type("here: sams-notes.test/glaze", "saltglaze_sam")
        bram.wait_text("has a pass", ".feed")
        self.assertFalse(self.world.removed(id))
        bram.button("End", ".panel-passes").click()
        bram.wait(lambda: not bram.all(".panel-passes"))

    def test_lists_keep_what_was_pasted_when_focus_leaves_and_undo_it(self) -> None:
        odalys = self.rules(self.odalys, "phrases")
        box = odalys.find("textarea[aria-label='Add: Blocked']")
        box.send_keys("wobblehead, soggy biscuit")
        odalys.find(".try-fields input").send_keys("you W0BBLEHE4D")
        odalys.wait_text("2 added.")
        odalys.wait_text("Removed, and the person is told why.", ".tried")
        odalys.wait_text("“W0BBLEHE4D” is on the list of phrases.", ".tried")
        odalys.button("Undo", ".notices").click()
        odalys.wait_text("Goes through.", ".tried")

    def test_a_flood_offers_the_drawbridge_and_one_press_raises_it(self) -> None:
        bram = self.desk(self.bram)
        for number in range(11):
            self.world.type("this channel is run by robots, leave it now", f"copy_{number}")
        bram.wait_text("Many people send the same thing. Raise the drawbridge?", ".bench")
        bram.button("Raise the drawbridge", ".bench").click()
        self.odalys.wait_text("Drawbridge up", ".lintel")
        eventually(lambda: self.followers_only())
        held = self.world.type("@bram come and see", "fresh_face", badges=["vip"], platform="lantern")
        eventually(lambda: self.world.removed(held, "lantern"))
        bram.button("Lower it", ".bench").click()
        eventually(lambda: not self.followers_only())

    def followers_only(self) -> bool:
        state = httpx.get(f"{self.world.playhouse_address}/state").json()
        return bool(state["platforms"]["brook"]["followers_only"])

    def test_what_a_person_removes_on_the_platform_is_a_miss(self) -> None:
        bram = self.desk(self.bram)
        id = self.world.type("something only people find rude", "subtle")
        bram.wait_text("something only people find rude", ".feed")
        body = {"platform": "brook", "id": id, "login": "wren"}
        httpx.post(f"{self.world.playhouse_address}/remove", json=body).raise_for_status()
        bram.wait_text("missed by the judge", ".feed")


if __name__ == "__main__":
    unittest.main()
