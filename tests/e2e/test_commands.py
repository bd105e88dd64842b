"""The Commands room, kits and the try-out, through the browser."""

from __future__ import annotations

import json
import tempfile
import unittest
from pathlib import Path

from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.support.browser import Browser
from tests.support.rooms import InRooms
from tests.support.world import eventually

KIT = {
    "gentlegate": 1,
    "commands": [
        {"name": "kiln", "reply": "The kiln is cold until Friday."},
        {"name": "cracked", "reply": "Cracked: {{ counter.cracked }}", "counts": [{"counter": "cracked", "by": 1}]},
    ],
    "counters": [{"name": "cracked", "label": "Cracked in the kiln"}],
}


class InCommands(InRooms):
    def begin(self, name: str, reply: str, everyone: str) -> Browser:
        """A new command for regulars with a cooldown of its own, typed and not saved."""
        browser = self.open("/commands/+")
        browser.find("#command-name").send_keys(name)
        browser.find("#command-reply-0").send_keys(reply)
        browser.button("Who may use it").click()
        browser.find("#choice-level").send_keys("Regulars")
        browser.button("How often").click()
        browser.find("#choice-cooling").send_keys("Its own")
        browser.find("#cool-everyone").send_keys(everyone)
        return browser


class Journey(InCommands):
    def test_made_waited_for_cleared_and_asked_about(self) -> None:
        """A command is made, waits for everybody, is cleared; the try-out says why a viewer cannot use it."""
        browser = self.begin("wheel", "Two wheels are free, {{ person.name }}", "stream")
        browser.button("On rotas").click()
        browser.find(".ticks input[id*='On rotas']").click()
        browser.button("Try-out").click()
        browser.find("#try-text").send_keys("!wheel")
        browser.find("#try-level").send_keys("regulars")
        browser.wait_text("Two wheels are free, thimblewick", ".try-found")
        browser.find(".try-out .btn-close").click()
        browser.button("Save").click()
        browser.wait_text("Saved. It works in chat now.")
        with self.world.client("odalys") as client:
            views = client.get("/api/commands").json()["commands"]
        self.assertEqual(len(next(v for v in views if v["name"] == "wheel")["rotas"]), 1)

        self.world.type("!wheel", "odalys", "moderator")
        eventually(lambda: "Two wheels are free, odalys" in self.world.texts())
        browser.driver.get(self.world.address)
        browser.wait_text("wheel", ".panel-cooldowns")
        browser.find("[data-command='wheel'] button").click()
        browser.wait(lambda: not browser.all(".panel-cooldowns") or "wheel" not in browser.text(".panel-cooldowns"))

        self.world.type("hello all", "passerby")
        browser.wait_text("hello all", ".feed")
        browser.button("Try-out").click()
        browser.find("#try-text").send_keys("!wheel")
        self.type_over(browser, "#try-login", "passerby")
        browser.wait_text("passerby, everyone, as seen in chat.", ".try-found")
        browser.wait_text("not at this level", ".try-found")

    def test_a_kit_is_looked_at_taken_in_and_back(self) -> None:
        browser = self.open("/setup/kits")
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "friends-kit.json"
            path.write_text(json.dumps(KIT), encoding="utf-8")
            browser.find("#kit-file").send_keys(str(path))
            browser.wait_text("2 new, 1 differ", ".kits")
        browser.wait_text("The kiln is cold until Friday.", "[data-place='commands.kiln']")
        browser.find("[id='in-commands.kiln']").click()
        self.type_over(browser, "[data-place='commands.kiln'] .kit-names input", "coldkiln")
        browser.button("Take 3 in").click()
        browser.wait_text("3 places changed.")
        browser.wait_text("friends-kit.json", ".batch")
        self.world.type("!coldkiln", "quillwort")
        eventually(lambda: "The kiln is cold until Friday." in self.world.texts())
        self.assertNotEqual(self.reply("kiln"), "The kiln is cold until Friday.")
        browser.button("Take back", ".batch").click()
        browser.wait_text("taken back by Odalys", ".batch")
        self.assertEqual((self.reply("coldkiln"), self.reply("cracked")), (None, None))

    def test_a_kit_of_a_newer_version_is_refused_and_nothing_is_lost(self) -> None:
        browser = self.open("/setup/kits")
        browser.find("#kit-text").send_keys('{"gentlegate": 2}')
        browser.button("See what it would change").click()
        browser.wait_text("This kit is of version 2; this gate reads version 1", ".kits")
        self.assertEqual(browser.find("#kit-text").get_attribute("value"), '{"gentlegate": 2}')

    def test_history_shows_each_save_and_puts_it_back(self) -> None:
        revision = self.make("slipware", "first words")
        with self.world.client("marlo") as marlo:
            body = {"command": {"name": "slipware", "reply": "second words"}, "revision": revision}
            marlo.put("/api/commands/slipware", json=body).raise_for_status()
        browser = self.open("/commands/slipware")
        browser.button("History").click()
        browser.wait_text("Marlo Finch changed it here", ".history")
        browser.button("Put back", ".history").click()
        eventually(lambda: self.reply("slipware") == "first words")
        browser.wait_text("Odalys changed it here", ".history")

    def test_several_are_moved_and_removed_and_come_back(self) -> None:
        for name in ("moveone", "movetwo"):
            self.make(name, "x")
        browser = self.open("/commands")
        browser.button("Several").click()
        for name in ("moveone", "movetwo"):
            browser.find(f"#several-{name}").click()
        browser.find(".several input[list]").send_keys("Attic")
        browser.button("Move here").click()
        browser.wait_text("2 commands moved.")
        browser.wait_text("Attic", ".list-body")
        browser.button("Remove", ".several").click()
        eventually(lambda: self.reply("moveone") is None)
        browser.button("Undo", ".notices .toast:last-child").click()
        eventually(lambda: self.reply("movetwo") == "x")

    def test_a_built_in_gets_another_name(self) -> None:
        browser = self.open("/commands/%2Ffollowing")
        browser.button("Names").click()
        browser.find(".fold-body input").send_keys("since" + Keys.ENTER)
        browser.button("Save").click()
        browser.wait_text("Saved. It works in chat now.")
        self.world.type("!since", "quillwort")
        eventually(lambda: any("follow" in text.lower() for text in self.world.texts()))

    def test_another_bot_that_answers_is_named_until_it_is_settled(self) -> None:
        browser = self.odalys
        browser.driver.get(self.world.address)
        for n in range(3):
            self.world.type(f"!shelf {n}", f"asker{n}")
            self.world.type(f"Mugs are on the shelf {n}", "potbot", "bot")
        browser.wait_text("potbot answers !shelf as well", ".panel-overlaps")
        browser.button("Both may answer", ".panel-overlaps").click()
        browser.wait(lambda: not browser.all(".panel-overlaps"))


class CommandsRoom(InCommands):
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
        browser = self.begin("stool", "three legs", "soon")
        browser.button("Other names").click()
        aliases = browser.driver.find_element(By.XPATH, "//label[.='Other names']/following-sibling::div/input")
        aliases.send_keys("seat, bench")
        browser.button("Save").click()
        browser.wait_text('"soon" is not a duration')
        self.type_over(browser, "#cool-everyone", "1m")
        browser.wait_text("Regulars and above, once in 1 min all together, on every platform.")
        browser.button("Save").click()
        browser.wait_text("Saved. It works in chat now.")
        self.world.type("!bench", "ashfall")
        self.world.type("!seat", "quillwort")
        eventually(lambda: "three legs" in self.world.texts())
        self.assertEqual(self.world.texts().count("three legs"), 1)

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


if __name__ == "__main__":
    unittest.main()
