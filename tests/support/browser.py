"""A headless Chromium with a page of a given size."""

from __future__ import annotations

import tempfile
from collections.abc import Callable
from typing import Any

from selenium import webdriver
from selenium.webdriver.chrome.options import Options
from selenium.webdriver.chrome.service import Service
from selenium.webdriver.common.by import By
from selenium.webdriver.remote.webelement import WebElement
from selenium.webdriver.support.ui import WebDriverWait

FLAGS = (
    "--headless=new --no-sandbox --disable-gpu --disable-quic --no-first-run --disable-background-networking"
    " --disable-component-update --disable-sync --disable-dev-shm-usage --force-color-profile=srgb"
)
DESK = (1280, 800)
PHONE = (390, 844)


class Browser:
    """One person's browser. Waiting is always for something to be seen, never for time."""

    def __init__(self, size: tuple[int, int] = DESK, dark: bool = False) -> None:
        options = Options()
        options.binary_location = "/usr/bin/chromium"
        for flag in FLAGS.split():
            options.add_argument(flag)
        self._profile = tempfile.TemporaryDirectory()
        options.add_argument(f"--user-data-dir={self._profile.name}")
        self.driver = webdriver.Chrome(options=options, service=Service("/usr/bin/chromedriver"))
        self.resize(size)
        if dark:
            features = [{"name": "prefers-color-scheme", "value": "dark"}]
            self.driver.execute_cdp_cmd("Emulation.setEmulatedMedia", {"features": features})

    def resize(self, size: tuple[int, int]) -> None:
        metrics = {"width": size[0], "height": size[1], "deviceScaleFactor": 1, "mobile": size[0] < 700}
        self.driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)

    def close(self) -> None:
        self.driver.quit()
        self._profile.cleanup()

    def wait(self, seen: Callable[[], Any], seconds: float = 15) -> Any:
        return WebDriverWait(self.driver, seconds, 0.05, ignored_exceptions=(Exception,)).until(lambda _: seen())

    def find(self, css: str) -> WebElement:
        found: WebElement = self.wait(lambda: self.driver.find_element(By.CSS_SELECTOR, css))
        return found

    def all(self, css: str) -> list[WebElement]:
        return self.driver.find_elements(By.CSS_SELECTOR, css)

    def click(self, css: str, place: int = 0) -> None:
        """Click an element, found again where the page has drawn it anew meanwhile."""
        self.wait(lambda: self.all(css)[place].click() is None)

    def button(self, words: str, inside: str = "body") -> WebElement:
        path = f".//button[starts-with(normalize-space(.), '{words}')]"
        found: WebElement = self.wait(
            lambda: self.driver.find_element(By.CSS_SELECTOR, inside).find_element(By.XPATH, path)
        )
        return found

    def link(self, words: str) -> None:
        """Follow the link with these words in it, once it is there."""
        self.wait(lambda: self.driver.find_element(By.PARTIAL_LINK_TEXT, words).click() is None)

    def choose_line(self, words: str) -> None:
        """Choose the line of chat with these words; chat may be moving meanwhile."""
        path = f"//div[contains(@class, 'line ')][contains(., '{words}')]"

        def chosen() -> bool:
            line = self.driver.find_element(By.XPATH, path)
            if "chosen" not in str(line.get_attribute("class")):
                line.find_element(By.CSS_SELECTOR, ".tile").click()
            return "chosen" in str(line.get_attribute("class"))

        self.wait(chosen)

    def text(self, css: str = "body") -> str:
        return str(self.driver.find_element(By.CSS_SELECTOR, css).text)

    def wait_text(self, words: str, css: str = "body", seconds: float = 15) -> None:
        try:
            self.wait(lambda: words in self.text(css), seconds)
        except Exception:
            raise AssertionError(f"{words!r} was not seen in {css}: {self.text(css)[:1500]!r}") from None

    def log_in(self, address: str, login: str, password: str) -> None:
        self.driver.get(address)
        self.find("#login").send_keys(login)
        self.find("#password").send_keys(password)
        self.find("form button[type=submit]").click()
        self.find(".lintel")
