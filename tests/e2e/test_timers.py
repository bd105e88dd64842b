"""Rotas in the Timers room and on the bench: foreseen, changed, dragged, tried, paused."""

from __future__ import annotations

from selenium.webdriver.common.keys import Keys

from tests.support.browser import Browser
from tests.support.rooms import InRooms
from tests.support.world import eventually


class TimersRoom(InRooms):
    def posts(self, browser: Browser, rota: str) -> int:
        return len(browser.all(f".strip-row[data-rota='{rota}'] .post"))

    def texts_of(self, browser: Browser) -> list[str]:
        return [
            str(field.get_attribute("value")) for field in browser.all(".notice-line textarea, .notice-line select")
        ]

    def rota(self, name: str) -> dict[str, object]:
        with self.world.client("odalys") as client:
            views = client.get("/api/rotas").json()["rotas"]
        return next(dict(view["rota"]) for view in views if view["name"] == name)

    def test_the_strip_follows_while_the_rhythm_is_changed(self) -> None:
        browser = self.open("/timers/Good%20manners")
        self.type_over(browser, ".pace-field", "30")
        before = browser.wait(lambda: self.posts(browser, "Good manners"))
        self.type_over(browser, "#rota-every", "30m")
        browser.wait_text("Posts every 30 min, once 10 lines came.")
        after = browser.wait(lambda: (now := self.posts(browser, "Good manners")) < before and now)
        self.assertAlmostEqual(after, before / 3, delta=1.5)
        self.type_over(browser, "#rota-lines", "5000")
        browser.wait_text("will not post at under 27.8 lines a minute", ".remarks")
        self.type_over(browser, ".pace-field", "0.1")
        browser.wait_text("and so not here", ".remarks")
        self.assertEqual(self.rota("Good manners")["every"], "10m")
        browser.button("Discard changes").click()

    def test_a_recorded_stream_is_gone_over(self) -> None:
        browser = self.open("/timers")
        browser.find(".ahead select").send_keys("Stream of")
        browser.wait_text("Over a recorded stream")
        browser.wait(lambda: self.posts(browser, "Round the studio") > 5)
        browser.click(".strip-row[data-rota='Round the studio'] .post", 0)
        browser.wait_text("Round the studio: !shelf", ".strip-said")

    def test_a_rota_is_made_with_two_fields(self) -> None:
        browser = self.open("/timers/+")
        browser.find("#rota-name").send_keys("Squares")
        browser.find(".notice-line textarea").send_keys("Say hello on the square.")
        browser.button("!kiln", ".unposted").click()
        browser.button("Save").click()
        browser.wait_text("It never posts at once because of a change.", ".notices")
        notices = [{"text": "Say hello on the square."}, {"command": "kiln"}]
        self.assertEqual(self.rota("Squares"), {"name": "Squares", "notices": notices})

    def test_notices_are_moved_by_keyboard_and_what_is_wrong_stands_at_its_notice(self) -> None:
        browser = self.open("/timers/Round%20the%20studio")
        first = browser.wait(lambda: self.texts_of(browser))
        handle = browser.find(".handle")
        handle.send_keys(Keys.SPACE)
        browser.wait(lambda: browser.find(".handle").get_attribute("aria-pressed"))
        handle.send_keys(Keys.ARROW_DOWN)
        browser.wait(lambda: "moved over" in browser.text("body") or browser.all("[id^=DndLiveRegion]"))
        handle.send_keys(Keys.SPACE)
        browser.wait(lambda: self.texts_of(browser) == [first[1], first[0], first[2]])
        browser.find(".notice-line textarea").send_keys(" {{ oops")
        browser.button("Save").click()
        browser.wait(lambda: "is-invalid" in str(browser.find(".notice-line textarea").get_attribute("class")))
        browser.button("Discard changes").click()
        browser.wait(lambda: self.texts_of(browser) == first)

    def test_a_notice_is_tried_and_said_once(self) -> None:
        browser = self.open("/timers/+")
        browser.find(".notice-line textarea").send_keys("Mugs left: {{ counter.mugs }}")
        browser.button("When, where", ".notice-row").click()
        browser.button("Try it", ".notice-row").click()
        browser.wait_text("Mugs left: 0", ".try-notice")
        self.assertNotIn("Mugs left: 0", self.world.texts())
        browser.button("Say it once for real", ".notice-row").click()
        eventually(lambda: "Mugs left: 0" in self.world.texts())
        browser.button("Discard changes").click()

    def test_paused_from_chat_and_let_go_on_from_the_bench(self) -> None:
        browser = self.odalys
        browser.driver.get(self.world.address)
        browser.find("[data-rota='Good manners']")
        self.world.type("!timers off Good manners", "bram", "moderator")
        browser.wait_text("paused", "[data-rota='Good manners']")
        browser.find("[data-rota='Good manners'] button").click()
        browser.button("Go on", "[data-rota='Good manners']").click()
        browser.wait(lambda: "paused" not in browser.text("[data-rota='Good manners']"))
        before = len(self.world.texts())
        browser.button("Next notice now", "[data-rota='Good manners']").click()
        eventually(lambda: len(self.world.texts()) > before)
