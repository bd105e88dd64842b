"""A lead in the rooms, with a world behind them."""

from __future__ import annotations

import unittest
from typing import ClassVar

from selenium.webdriver.common.keys import Keys

from gentlegate.demo.prepare import PASSWORD
from tests.support.browser import Browser
from tests.support.world import World


class InRooms(unittest.TestCase):
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

    def reply(self, name: str) -> str | None:
        with self.world.client("odalys") as client:
            views = client.get("/api/commands").json()["commands"]
        return next((view["command"]["reply"] for view in views if view["name"] == name), None)
