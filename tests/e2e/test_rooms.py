"""The Commands and Rules rooms, as leads and moderators use them."""

from __future__ import annotations

import unittest
from typing import ClassVar

from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from gentlegate.demo.prepare import PASSWORD
from tests.support.browser import PHONE, Browser
from tests.support.world import World, eventually


class Rooms(unittest.TestCase):
    world: ClassVar[World]
    odalys: ClassVar[Browser]

    @classmethod
    def setUpClass(cls) -> None:
        cls.world = World().start()
        cls.odalys = Browser()
        cls.odalys.log_in(cls.world.address, "odalys", PASSWORD)

    @classmethod
    def tearDownClass(cls) -> None:
        cls.odalys.close()
        cls.world.stop()

    def open(self, path: str, browser: Browser | None = None) -> Browser:
        browser = browser or self.odalys
        browser.driver.get(self.world.address + path)
        browser.find(".list-row")
        return browser

    def make(self, name: str, reply: str) -> str:
        with self.world.client("odalys") as client:
            body = {"command": {"name": name, "reply": reply}, "revision": None}
            return str(client.put(f"/api/commands/{name}", json=body).raise_for_status().json()["revision"])

    def type_over(self, browser: Browser, css: str, text: str) -> None:
        field = browser.find(css)
        field.send_keys(Keys.CONTROL, "a")
        field.send_keys(text)

    def test_saving_over_somebody_elses_change_shows_both_sides(self) -> None:
        revision = self.make("newt", "first")
        browser = self.open("/commands/newt")
        self.type_over(browser, "#command-reply-0", "mine")
        with self.world.client("marlo") as marlo:
            body = {"command": {"name": "newt", "reply": "theirs"}, "revision": revision}
            marlo.put("/api/commands/newt", json=body).raise_for_status()
        self.assertEqual(browser.find("#command-reply-0").get_attribute("value"), "mine")
        browser.button("Save").click()
        browser.wait_text("theirs", ".sides")
        browser.wait_text("mine", ".sides")
        self.assertEqual(self.reply("newt"), "theirs")
        browser.button("Keep mine").click()
        eventually(lambda: self.reply("newt") == "mine")

    def reply(self, name: str) -> str | None:
        with self.world.client("odalys") as client:
            views = client.get("/api/commands").json()["commands"]
        return next((view["command"]["reply"] for view in views if view["name"] == name), None)

    def test_a_removed_command_comes_back_with_one_press(self) -> None:
        self.make("toad", "croak")
        browser = self.open("/commands/toad")
        browser.button("Remove").click()
        browser.wait_text("!toad is removed.")
        eventually(lambda: self.reply("toad") is None)
        browser.button("Undo", ".notices").click()
        eventually(lambda: self.reply("toad") == "croak")

    def test_a_command_is_switched_off_in_the_list(self) -> None:
        self.make("frog", "ribbit")
        browser = self.open("/commands")
        browser.find("[aria-label='On: frog']").click()
        with self.world.client("odalys") as client:
            eventually(
                lambda: any(
                    v["name"] == "frog" and v["command"].get("on") is False
                    for v in client.get("/api/commands").json()["commands"]
                )
            )
        self.world.type("!frog", "ashfall")
        refused = "SELECT 1 FROM effects WHERE effect = 'refused' AND body LIKE '%\"command\":\"frog\"%disabled%'"
        eventually(lambda: self.world.rows(refused))

    def test_searching_finds_replies_and_aliases(self) -> None:
        browser = self.open("/commands")
        for words, name in (("640", "!kiln"), ("temperature", "!kiln"), ("upti", "!uptime")):
            self.type_over(browser, "input[type=search]", words)
            browser.wait(lambda name=name: [row.text.split()[0] for row in browser.all(".list-row")] == [name])  # type: ignore[misc]
        self.type_over(browser, "input[type=search]", "nothing like this")
        browser.wait_text("No command matches.")

    def test_levels_cooldowns_and_aliases_unfold_and_count(self) -> None:
        browser = self.open("/commands/+")
        browser.find("#command-name").send_keys("stool")
        browser.find("#command-reply-0").send_keys("three legs")
        browser.button("Change who").click()
        browser.find("#choice-level").send_keys("Regulars")
        browser.find("#choice-cooling").send_keys("Its own")
        browser.find("#cool-everyone").send_keys("soon")
        aliases = browser.driver.find_element(By.XPATH, "//label[.='Other names']/following-sibling::div/input")
        aliases.send_keys("seat, bench")
        browser.button("Save").click()
        browser.wait_text('"soon" is not a duration')
        self.type_over(browser, "#cool-everyone", "1m")
        browser.wait_text("Regulars and above may use it, on every platform. Again after 1 min.")
        browser.button("Save").click()
        browser.wait_text("Saved. It works in chat now.")
        self.world.type("!bench", "ashfall")
        self.world.type("!seat", "quillwort")
        eventually(lambda: "three legs" in self.world.texts())
        self.assertEqual(self.world.texts().count("three legs"), 1)

    def test_a_moderator_reads_but_does_not_change(self) -> None:
        browser = Browser()
        self.addCleanup(browser.close)
        browser.log_in(self.world.address, "bram", PASSWORD)
        self.open("/commands/kiln", browser)
        browser.wait_text("Leads may change commands; you can read them.")
        self.assertFalse(browser.find("#command-name").is_enabled())
        self.assertNotIn("New command", browser.text(".list"))
        self.open("/rules/links", browser)
        browser.wait_text("You may change these for tonight; a lead changes them for good.")
        browser.find(".try-line input").send_keys("other.test")
        browser.wait_text("Removed, and the person is told why.", ".tried")

    def test_the_mood_is_set_for_everybody_and_single_changes_stay(self) -> None:
        other = Browser()
        self.addCleanup(other.close)
        other.log_in(self.world.address, "wren", PASSWORD)
        browser = self.open("/rules/capitals")
        browser.wait_text("1 setting of your own.")
        self.type_over(browser, "#field-share", "81")
        browser.button("Save", ".setting-fields").click()
        browser.wait_text("2 settings of your own.")
        browser.find(".moods label:nth-of-type(3)").click()
        other.wait_text("Library", ".lintel")
        self.assertEqual(browser.find("#field-share").get_attribute("value"), "81")
        browser.button("Back to the mood", ".setting-fields").click()
        browser.button("Save", ".setting-fields").click()
        browser.wait_text("1 setting of your own.")
        browser.find(".moods label:nth-of-type(2)").click()
        other.wait_text("Parlour", ".lintel")
        browser.button("Drop your own settings").click()
        browser.wait_text("Everything is as the mood has it.")

    def test_a_cue_is_made_and_shows_what_it_would_have_answered(self) -> None:
        id = self.world.type("is the KETTLE on yet?", "ashfall")
        eventually(lambda: self.world.rows("SELECT 1 FROM events WHERE message = ?", id))
        browser = self.open("/commands/~+")
        browser.find("#command-name").send_keys("kettle")
        browser.find("fieldset ul.chips, .two-sides input:not([id^=command])").send_keys(
            "is the kettle on" + Keys.ENTER
        )
        browser.wait_text("It would have answered once in the last", ".consequence")
        browser.find("#command-reply-0").send_keys("It always is, {{ person.name }}")
        browser.button("Save").click()
        browser.wait_text("Saved. It works in chat now.")
        self.world.type("say, is the kettle on?", "quillwort")
        eventually(lambda: "It always is, quillwort" in self.world.texts())

    def test_the_try_out_answers_and_touches_nothing(self) -> None:
        self.make("basin", "Clean it first, {{ person.name }}")
        browser = self.open("/rules/links")
        browser.button("Try-out").click()
        browser.find("#try-text").send_keys("!basin")
        browser.wait_text("Clean it first, thimblewick", ".try-found")
        self.type_over(browser, "#try-text", "see other.test")
        browser.wait_text("The link other.test is not allowed here.", ".try-found")
        self.type_over(browser, "#try-text", "!count mugs +1")
        browser.wait_text("not at this level", ".try-found")
        counters = "SELECT key, body FROM state WHERE name IN ('counters', 'changes') ORDER BY key"
        before = (self.world.texts(), self.world.rows(counters))
        browser.find("#try-level").send_keys("moderators")
        browser.wait_text("mugs pulled", ".try-found")
        browser.find(".try-out .btn-close").click()
        self.assertEqual((self.world.texts(), self.world.rows(counters)), before)

    def test_every_room_fits_a_phone(self) -> None:
        browser = Browser(PHONE)
        self.addCleanup(browser.close)
        browser.log_in(self.world.address, "odalys", PASSWORD)
        for path in ("/commands/kiln", "/commands/+", "/rules/capitals", "/rules/links"):
            with self.subTest(path):
                self.open(path, browser)
                width = browser.driver.execute_script("return document.documentElement.scrollWidth")
                self.assertLessEqual(width, PHONE[0])
