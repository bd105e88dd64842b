"""The rooms as leads and moderators use them, at the desk and on a phone."""

from __future__ import annotations

from selenium.webdriver.common.keys import Keys

from gentlegate.demo.prepare import PASSWORD
from tests.support.browser import PHONE, Browser
from tests.support.rooms import InRooms
from tests.support.world import eventually


class Rooms(InRooms):
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

    def test_anything_is_found_by_a_few_letters(self) -> None:
        self.world.type("hello there", "marbled_paper")
        self.make("apron", "Sewn by a friend.")
        browser = self.open("/rules/links")
        browser.find("body").send_keys(Keys.CONTROL, "k")
        browser.find(".search-all input").send_keys("apro", Keys.ENTER)
        browser.wait(lambda: browser.driver.current_url.endswith("/commands/apron"))
        self.assertEqual(browser.all(".search-all"), [])
        browser.find("#command-name").send_keys(Keys.CONTROL, "k")
        browser.find(".search-all input").send_keys("marbled")
        browser.wait_text("marbled_paper", ".search-all")
        browser.find(".search-all input").send_keys(Keys.ENTER)
        browser.wait_text("hello there", ".person .said")
        browser.button("Search").click()
        browser.find(".search-all input").send_keys("one more: kettle")
        browser.wait_text("One more: kettle boils", ".search-all [data-selected=true]")
        browser.find(".search-all input").send_keys(Keys.ENTER)
        browser.wait_text("Counted: kettle boils", ".notices")

    def test_a_key_is_given_another_letter(self) -> None:
        id = self.world.type("away with another key", "grumbly", platform="lantern")
        browser = self.odalys
        browser.driver.get(self.world.address)
        browser.wait_text("away with another key", ".feed")
        browser.button("Keys").click()
        field = browser.find("[aria-label='Key for: Remove']")
        field.send_keys("u")
        browser.wait_text("U does “Undo what the gate did” already.", ".card-over")
        field.send_keys("d")
        browser.find("body").send_keys(Keys.ESCAPE)
        browser.choose_line("away with another key")
        browser.wait_text("D", ".line.chosen .acts")
        browser.find("body").send_keys("x")
        browser.find("body").send_keys("d")
        eventually(lambda: self.world.removed(id, "lantern"))
        browser.button("Keys").click()
        browser.button("The usual keys again").click()
        self.assertEqual(browser.find("[aria-label='Key for: Remove']").get_attribute("value"), "X")

    def test_the_chats_text_is_made_larger_and_stays_so(self) -> None:
        self.world.type("how large is this line", "ashfall")
        browser = self.odalys
        browser.driver.get(self.world.address)
        browser.wait_text("how large is this line", ".feed")
        size = "return getComputedStyle(document.querySelector('.line')).fontSize"
        self.assertEqual(browser.driver.execute_script(size), "15px")
        browser.find("#account").click()
        for _ in range(3):
            browser.find("[aria-label='Larger chat text']").click()
        self.assertEqual(browser.driver.execute_script(size), "18px")
        browser.driver.refresh()
        browser.wait_text("how large is this line", ".feed")
        self.assertEqual(browser.driver.execute_script(size), "18px")
        browser.driver.execute_script("localStorage.removeItem('gentlegate.text')")

    def test_every_room_fits_a_phone(self) -> None:
        browser = Browser(PHONE)
        self.addCleanup(browser.close)
        browser.log_in(self.world.address, "odalys", PASSWORD)
        for path in ("/commands/kiln", "/commands/+", "/rules/capitals", "/rules/links", "/setup/kits"):
            with self.subTest(path):
                self.open(path, browser)
                width = browser.driver.execute_script("return document.documentElement.scrollWidth")
                self.assertLessEqual(width, PHONE[0])
