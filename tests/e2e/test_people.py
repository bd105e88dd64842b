"""People in the browser: a card over the bench, notes, lists by paste, two moderators at one line; and on a phone."""

from __future__ import annotations

import contextlib
import unittest
from typing import ClassVar

from selenium.common.exceptions import StaleElementReferenceException
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select

from gentlegate.demo.prepare import PASSWORD
from tests.support.browser import PHONE, Browser
from tests.support.team import TwoBrowsers
from tests.support.world import World, eventually


class Cards(TwoBrowsers):
    def setUp(self) -> None:
        for browser in (self.bram, self.odalys):
            browser.driver.get(self.world.address)
            browser.find(".feed")

    def test_the_card_over_the_bench_and_a_note_for_the_others(self) -> None:
        self.world.type("this is my first mug", "claybird")
        self.bram.choose_line("this is my first mug")
        self.bram.find("body").send_keys("y")
        self.bram.wait_text("Viewer no badge, on no list", ".person")
        self.bram.wait_text("this is my first mug", ".person .said")
        self.bram.find(".note-form input").send_keys("Asks kindly, be patient.", Keys.ENTER)
        self.bram.wait_text("Asks kindly, be patient.", ".notes")
        self.odalys.driver.get(f"{self.world.address}/people")
        self.odalys.find(".list-head input").send_keys("CLAYB")
        self.odalys.wait_text("claybird", ".list-body")
        self.odalys.link("claybird")
        self.odalys.wait_text("Bram,", ".notes")
        self.odalys.find("#on-regulars").click()
        self.odalys.wait_text("Regular on the channel’s list", ".facts")

    def test_the_second_at_a_line_is_told_and_goes_on_with_one_more_press(self) -> None:
        id = self.world.type("two of us saw this", "grumbler", platform="lantern")
        for browser in (self.bram, self.odalys):
            browser.choose_line("two of us saw this")
        self.bram.find("body").send_keys("x")
        eventually(lambda: self.world.removed(id, "lantern"))
        self.odalys.wait_text("removed · by Bram", ".line.chosen")
        self.odalys.find("body").send_keys("z")
        self.odalys.find("body").send_keys("2")
        self.odalys.wait_text("Bram removed that a moment ago.", ".notices")
        self.assertNotIn(
            "lantern:u-grumbler", str(self.world.rows("SELECT body FROM effects WHERE effect = 'timeout'"))
        )
        self.odalys.button("Time out anyway", ".notices").click()
        eventually(
            lambda: "u-grumbler" in str(self.world.rows("SELECT body FROM effects WHERE effect = 'timeout'"))
        )

    def test_many_names_are_pasted_and_looked_up_when_focus_leaves(self) -> None:
        self.odalys.driver.get(f"{self.world.address}/people/lists/regulars")
        names = self.odalys.find(".names-form textarea")
        names.send_keys("ashfall, bisque_it nobody_like_this")
        self.odalys.find("h2").click()
        self.odalys.wait_text("Bisque It", ".names")
        self.odalys.wait_text("ashfall", ".names")
        self.odalys.wait_text("Brook knows nobody with this log-in", ".odd-names")
        self.odalys.button("Correct", ".odd-names").click()
        self.assertEqual(names.get_attribute("value"), "nobody_like_this")
        self.odalys.find("[data-entry='brook:u-ashfall'] .drop").click()
        self.odalys.wait(lambda: not self.odalys.all("[data-entry='brook:u-ashfall']"))
        self.odalys.button("Put back", ".notices").click()
        self.odalys.find("[data-entry='brook:u-ashfall']")

    def test_linked_from_a_suggestion_and_parted(self) -> None:
        self.world.type("hello on brook", "twin_pot")
        self.world.type("hello on lantern", "twin_pot", platform="lantern")
        self.odalys.driver.get(f"{self.world.address}/people/card/brook:u-twin_pot")
        self.odalys.button("The same person", "[data-alike='lantern:u-twin_pot']").click()
        self.odalys.find("[data-account='lantern:u-twin_pot']")
        self.odalys.wait_text("hello on lantern", ".said")
        self.odalys.button("Part", "[data-account='lantern:u-twin_pot']").click()
        self.odalys.find("[data-alike='lantern:u-twin_pot']")

    def test_what_one_missed_is_there_when_asked_for(self) -> None:
        self.odalys.find("[aria-label='One more: kettle boils']").click()
        self.odalys.wait_text("by Odalys, just now", "[data-counter=boils]")
        self.bram.button("What you missed").click()
        self.bram.wait_text("Odalys counted · boils", ".hand-over")
        self.bram.find(".hand-over .note-form input").send_keys("Tea is at five.", Keys.ENTER)
        self.bram.wait_text("Tea is at five.", ".hand-over .notes")
        self.bram.button("I have seen it").click()
        self.bram.wait(lambda: not self.bram.all(".hand-over"))

    def test_the_room_begins_with_what_there_is_to_look_at(self) -> None:
        self.world.type("buy pots at bad.test now", "pitchy")
        self.world.type("hello on brook", "double_pot", "subscriber")
        self.world.type("hello on lantern", "double_pot", platform="lantern")
        with self.world.client("bram") as bram:
            bram.post("/api/people/notes", json={"person": None, "text": "Kettle is broken."}).raise_for_status()
        self.odalys.driver.get(f"{self.world.address}/people")
        for words in ("pitchy", "1 strike", "Kettle is broken.", "double_pot"):
            self.odalys.wait_text(words, ".people-overview")
        self.odalys.link("double_pot")
        self.odalys.button("The same person").click()
        self.odalys.driver.get(f"{self.world.address}/people")
        self.odalys.wait_text("Kettle is broken.", ".people-overview")
        self.odalys.wait(lambda: "double_pot" not in self.odalys.text(".people-overview"))


class OnAPhone(unittest.TestCase):
    """A moderator with only a phone: every press is in reach, nothing needs a second hand."""

    world: ClassVar[World]
    bram: ClassVar[Browser]

    @classmethod
    def setUpClass(cls) -> None:
        cls.world = World().start()
        cls.bram = Browser(PHONE)
        cls.bram.log_in(cls.world.address, "bram", PASSWORD)

    @classmethod
    def tearDownClass(cls) -> None:
        cls.bram.close()
        cls.world.stop()

    def press(self, words: str, inside: str = "body") -> None:
        """Press a button that is wholly on the screen and large enough for a thumb."""
        button = self.bram.button(words, inside)
        self.bram.driver.execute_script("arguments[0].scrollIntoView({block: 'center'})", button)
        place = button.rect
        self.assertGreaterEqual(place["x"], 0, words)
        self.assertLessEqual(place["x"] + place["width"], PHONE[0], words)
        self.assertGreaterEqual(min(place["width"], place["height"]), 24, words)
        button.click()

    def test_an_evening_with_one_thumb(self) -> None:
        bram = self.bram
        id = self.world.type("buy pots at bad.test now", "salesy", platform="lantern")
        other = self.world.type("a rude word by hand", "grumpy", platform="lantern")
        bram.choose_line("a rude word by hand")
        self.press("Remove", ".line.chosen")
        eventually(lambda: self.world.removed(other, "lantern"))
        bram.choose_line("buy pots at bad.test")
        self.press("Why", ".line.chosen")
        bram.wait_text("The link bad.test is not allowed here.", ".card-over")
        self.press("Undo", ".card-acts")
        eventually(lambda: not self.world.removed(id, "lantern"))
        self.press("10 min", ".person-acts")
        bram.wait_text("May pass Links", ".person")
        bram.find(".person .note-form input").send_keys("Sells pots.")
        self.press("Note", ".person .note-form")
        bram.wait_text("Sells pots.", ".person .notes")
        self.press("Close", ".card-over")
        self.press("Bench", ".chat-head")
        bram.find("[aria-label='One more: mugs pulled']").click()
        bram.wait_text("by Bram, just now", "[data-counter=mugs]")
        self.press("Undo", "[data-counter=mugs]")
        bram.wait_text("0", "[data-counter=mugs] output")
        self.press("Shoutout", ".bench")
        self.press("Back to the chat")
        bram.find("#say").send_keys("Nine of twelve.", Keys.ENTER)
        eventually(lambda: "Nine of twelve." in self.world.texts("lantern"))

    def test_running_the_stream_with_one_thumb(self) -> None:
        bram = self.bram
        bram.driver.get(self.world.address)
        self.press("Bench", ".chat-head")
        title = bram.find("[aria-label='Title']")
        title.clear()
        title.send_keys("Tea, then bowls")
        self.press("Set", ".title-field")
        eventually(
            lambda: self.world.rows("SELECT 1 FROM ledger WHERE what = 'title' AND after LIKE '%Tea, then%'")
        )
        bram.find(".notice-next [aria-expanded]").click()
        self.press("Pause", ".notice-opened")
        bram.wait_text("paused", ".panel-notices")
        self.press("Go on", ".notice-opened")
        bram.wait(lambda: "paused" not in bram.text(".panel-notices"))
        self.press("Raise the drawbridge", ".bench")
        bram.wait_text("Drawbridge up", ".lintel")
        self.press("Lower it", ".bench")
        bram.wait(lambda: "Drawbridge up" not in bram.text(".lintel"))
        self.press("Marker", ".presses")
        bram.find(".press-body input").send_keys("the wobble", Keys.ENTER)
        eventually(lambda: self.world.rows("SELECT 1 FROM ledger WHERE what = 'marker' AND after LIKE '%wobble%'"))
        bram.driver.get(f"{self.world.address}/rules/length")
        bram.find("#field-most").send_keys(Keys.CONTROL, "a")
        bram.find("#field-most").send_keys("150")
        self.press("Save for tonight", ".save-bar")
        bram.wait_text("Tonight: Length: at most 150", ".lintel")
        self.press("Tonight: Length", ".lintel")
        bram.wait(lambda: "Tonight" not in bram.text(".lintel"))

    def fits(self) -> bool:
        return int(self.bram.driver.execute_script("return document.documentElement.scrollWidth")) <= PHONE[0]

    def test_no_room_is_wider_than_the_phone(self) -> None:
        for path in ("/", "/people", "/people/lists/regulars", "/records", "/setup/sessions", "/setup/platforms"):
            with self.subTest(path):
                self.bram.driver.get(self.world.address + path)
                self.bram.find("h1")
                self.bram.wait(self.fits)


class BackInTime(TwoBrowsers):
    def test_a_section_is_put_back_after_a_look(self) -> None:
        with self.world.client("odalys") as client:
            body = {"command": {"name": "apron", "reply": "Sewn by a friend."}, "revision": None}
            client.put("/api/commands/apron", json=body).raise_for_status()
        self.odalys.driver.get(f"{self.world.address}/records")
        self.odalys.find(".ledger")
        self.odalys.link("the section before this")
        self.odalys.wait_text("Sewn by a friend.", "[data-path='commands.apron']")
        self.odalys.button("Put it back").click()
        self.odalys.wait_text("Nothing would change: it is the same now.", ".chosen")
        self.odalys.button("Undo", ".notices").click()
        self.odalys.wait_text("Sewn by a friend.", "[data-path='commands.apron']")

    def test_two_saves_are_mixed_field_by_field_and_who_types_is_shown(self) -> None:
        address = f"{self.world.address}/commands/kiln"
        with self.world.client("marlo") as marlo:
            marlo.put("/api/team/permissions/commands", json={"level": "moderator"}).raise_for_status()
        for browser in (self.bram, self.odalys):
            browser.driver.get(address)
            browser.find("textarea")
        self.bram.find("textarea").send_keys(" Says Bram.")
        self.odalys.wait_text("Bram is changing this too", ".chosen-head")
        self.bram.button("How it answers").click()
        Select(self.bram.find("#choice-mode")).select_by_value("reply")
        with self.world.client("odalys") as client:
            kiln = next(one for one in client.get("/api/commands").json()["commands"] if one["name"] == "kiln")
            command = {**kiln["command"], "reply": "Odalys was first.", "note": "ask Odalys"}
            body = {"command": command, "revision": kiln["revision"]}
            client.put("/api/commands/kiln", json=body).raise_for_status()
        self.bram.button("Save").click()
        self.bram.find(".mix [data-field=reply] td:nth-child(3) input").click()
        self.bram.button("Save what is chosen").click()
        self.bram.wait(lambda: not self.bram.all(".mix"))
        with self.world.client("odalys") as client:
            kiln = next(one for one in client.get("/api/commands").json()["commands"] if one["name"] == "kiln")
        self.assertEqual((kiln["command"]["reply"], kiln["command"]["mode"]), ("Odalys was first.", "reply"))

    def test_two_at_one_filter_see_both_and_nothing_is_lost(self) -> None:
        with self.world.client("marlo") as marlo:
            marlo.put("/api/team/permissions/filters", json={"level": "moderator"}).raise_for_status()
        for browser in (self.bram, self.odalys):
            browser.driver.get(f"{self.world.address}/rules/length")
            browser.find("#field-most")
        self.bram.find("#field-most").send_keys(Keys.CONTROL, "a")
        self.bram.find("#field-most").send_keys("111")
        self.odalys.wait_text("Bram is changing this too", ".chosen-head")
        self.bram.driver.refresh()
        self.bram.wait(lambda: self.bram.find("#field-most").get_attribute("value") == "111")
        with self.world.client("odalys") as client:
            body = {"values": {"most": 222, "strikes": 3}}
            client.put("/api/rules/filters/length", json=body).raise_for_status()
        self.bram.button("Save", ".save-bar").click()
        row = "[data-field=most] td:nth-child(3) label"
        self.bram.wait_text("222", row)
        self.bram.button("Take theirs", ".mix + div").click()
        self.bram.wait(lambda: self.bram.find("#field-most").get_attribute("value") == "222")
        self.bram.wait(lambda: not self.bram.all(".save-bar"))

    def test_a_session_that_ends_mid_edit_keeps_what_was_typed(self) -> None:
        browser = Browser()
        self.addCleanup(browser.close)
        browser.log_in(self.world.address, "marlo", PASSWORD)
        browser.driver.get(f"{self.world.address}/commands/tea")
        browser.find("textarea").send_keys(" And a biscuit.")
        self.world.change(
            "UPDATE sessions SET ends = 0 WHERE account = (SELECT id FROM accounts WHERE login = 'marlo')"
        )
        with contextlib.suppress(StaleElementReferenceException):
            browser.button("Save").click()
        browser.find("#login").send_keys("marlo")
        browser.find("#password").send_keys(PASSWORD)
        browser.find("form button[type=submit]").click()
        browser.wait(lambda: str(browser.find("textarea").get_attribute("value")).endswith("And a biscuit."))
        browser.button("Save").click()
        browser.wait_text("Saved", ".notices")
