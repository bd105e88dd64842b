"""One contract for every connector, against the real Playhouse over loopback."""

from __future__ import annotations

import asyncio
import unittest
from collections.abc import Awaitable, Callable
from typing import Any, ClassVar

import httpx

from gentlegate.connectors import KNOWN
from gentlegate.connectors.base import Connector, NotPossible, TryAgain
from gentlegate.core.events import Event, Message, StreamChange
from gentlegate.demo.prepare import TOKEN
from tests.support.hooks import hook_door
from tests.support.world import World


class Heard:
    def __init__(self) -> None:
        self.events: list[Event] = []
        self.places: list[int | None] = []
        self.lamps: list[str] = []

    def receive(self, event: Event, place: int | None) -> None:
        self.events.append(event)
        self.places.append(place)

    def lamp(self, platform: str, lamp: str, note: str = "") -> None:
        self.lamps.append(lamp)

    def texts(self) -> list[str]:
        return [event.text for event in self.events if isinstance(event, Message)]


async def soon(look: Callable[[], Any], seconds: float = 10) -> None:
    async with asyncio.timeout(seconds):
        while not look():
            await asyncio.sleep(0.01)


async def carry_out(connector: Connector, key: str, act: dict[str, Any]) -> dict[str, Any] | None:
    """Send, waiting as long as the platform asks for."""
    while True:
        try:
            return await connector.send(key, act)
        except TryAgain as error:
            await asyncio.sleep(error.after or 0.1)


class Contract:
    """What every platform's connector must do."""

    platform: str
    world: ClassVar[World]

    @classmethod
    def setUpClass(cls) -> None:
        cls.world = World()
        cls.world.start_playhouse()

    @classmethod
    def tearDownClass(cls) -> None:
        cls.world.stop()

    def hearing(self, work: Callable[[Connector, Heard], Awaitable[None]], place: int | None = None) -> Heard:
        """Run a connector while `work` goes on."""

        async def run() -> Heard:
            home = f"http://127.0.0.1:{self.world.port}"
            connector = KNOWN[self.platform](self.world.playhouse_address, TOKEN, home)
            heard = Heard()
            async with hook_door(self.world.port, connector):
                task = asyncio.create_task(connector.run(heard, place))
                try:
                    await work(connector, heard)
                finally:
                    task.cancel()
                    await asyncio.gather(task, return_exceptions=True)
                    await connector.close()
            return heard

        self.world.go(self.platform, True, title="Bowls", category="Wheel throwing")
        return asyncio.run(run())

    async def joined(self, heard: Heard) -> None:
        await soon(lambda: any(isinstance(event, StreamChange) and event.live for event in heard.events))
        await asyncio.sleep(0)

    def type(self, text: str, login: str = "thimblewick", *badges: str) -> str:
        return self.world.type(text, login, *badges, platform=self.platform)

    def test_it_hears_lines_with_who_said_them(self) -> None:
        async def work(_: Connector, heard: Heard) -> None:
            await self.joined(heard)
            self.type("hello there", "saltglaze_sam", "subscriber")
            await soon(heard.texts)

        heard = self.hearing(work)
        message = next(event for event in heard.events if isinstance(event, Message))
        self.assertEqual(
            (message.text, message.person.login, message.platform), ("hello there", "saltglaze_sam", self.platform)
        )  # type: ignore[attr-defined]
        self.assertEqual(message.person.badges, frozenset({"subscriber"}))  # type: ignore[attr-defined]
        change = next(event for event in heard.events if isinstance(event, StreamChange))
        self.assertEqual((change.title, change.category), ("Bowls", "Wheel throwing"))  # type: ignore[attr-defined]

    def test_it_goes_on_from_its_place(self) -> None:
        async def first(_: Connector, heard: Heard) -> None:
            await self.joined(heard)
            self.type("one")
            await soon(lambda: "one" in heard.texts())

        place = self.hearing(first).places[-1]
        self.type("two")

        async def second(_: Connector, heard: Heard) -> None:
            await soon(lambda: "two" in heard.texts())

        self.assertNotIn("one", self.hearing(second, place).texts())  # type: ignore[attr-defined]

    def test_it_mends_a_broken_connection(self) -> None:
        async def work(_: Connector, heard: Heard) -> None:
            await self.joined(heard)
            self.type("before")
            await soon(lambda: "before" in heard.texts())
            self.world.trouble(self.platform, broken=True)
            await soon(lambda: "broken" in heard.lamps)
            self.type("meanwhile")
            self.world.trouble(self.platform, broken=False)
            await soon(lambda: "meanwhile" in heard.texts())

        texts = self.hearing(work).texts()
        self.assertEqual(texts.count("before"), 1)  # type: ignore[attr-defined]

    def test_it_sees_rights_go(self) -> None:
        async def work(_: Connector, heard: Heard) -> None:
            await self.joined(heard)
            for rights, lamp in ((False, "no rights"), (True, "joined")):
                heard.lamps.clear()
                self.world.trouble(self.platform, rights=rights)
                if self.platform == "plaza":
                    self.assertNotIn(lamp, heard.lamps)  # type: ignore[attr-defined]
                    self.type("its webhooks carry the rights")
                await soon(lambda lamp=lamp: lamp in heard.lamps)  # type: ignore[misc]

        self.hearing(work)

    def test_each_act_is_carried_out_once_by_its_key(self) -> None:
        async def work(connector: Connector, heard: Heard) -> None:
            await self.joined(heard)
            id = self.type("buy now", "pushy")
            person = f"{self.platform}:u-pushy"
            acts: list[dict[str, Any]] = [
                {"effect": "remove", "message": id},
                {"effect": "timeout", "person": person, "seconds": connector.abilities.timeout(60)},
                {"effect": "unban", "person": person},
                {"effect": "title", "title": "Twelve bowls"},
                {"effect": "say", "text": "done", "reply_to": None, "private_to": None},
            ]
            for number, act in enumerate(acts):
                key = f"test-{self.platform}-{number}"
                self.assertFalse(await connector.was_done(key))  # type: ignore[attr-defined]
                for _ in range(2):
                    await carry_out(connector, key, act)
                self.assertTrue(await connector.was_done(key))  # type: ignore[attr-defined]
            await soon(lambda: "done" in heard.texts())
            self.assertTrue(self.world.removed(id, self.platform))  # type: ignore[attr-defined]
            await self.restore(connector, id)

        heard = self.hearing(work)
        self.assertEqual(heard.texts().count("done"), 1)  # type: ignore[attr-defined]
        state = self.world.playhouse.get("/state").json()["platforms"][self.platform]
        self.assertEqual((state["title"], state["shut_out"]), ("Twelve bowls", {}))  # type: ignore[attr-defined]

    async def restore(self, connector: Connector, id: str) -> None:
        act = {"effect": "restore", "message": id}
        if connector.abilities.restore:
            await carry_out(connector, f"back-{id}", act)
            self.assertFalse(self.world.removed(id, self.platform))  # type: ignore[attr-defined]
        else:
            with self.assertRaises(NotPossible):  # type: ignore[attr-defined]
                await carry_out(connector, f"back-{id}", act)

    def test_what_the_platform_refuses_is_not_possible(self) -> None:
        async def work(connector: Connector, heard: Heard) -> None:
            await self.joined(heard)
            with self.assertRaises(NotPossible):  # type: ignore[attr-defined]
                await carry_out(connector, "gone", {"effect": "remove", "message": "no-such-line"})

        self.hearing(work)

    def test_people_are_looked_up_by_their_log_in(self) -> None:
        async def work(connector: Connector, heard: Heard) -> None:
            await self.joined(heard)
            self.type("I am here", "New_Comer")
            asked = {"effect": "lookup", "what": "person", "name": "new_comer"}
            await soon(lambda: "I am here" in heard.texts())
            found = await connector.send("", asked) or {}
            self.assertEqual((found["id"], found["login"]), ("u-new_comer", "new_comer"))  # type: ignore[attr-defined]
            self.assertIsNone(await connector.send("", {**asked, "name": "who/ever is? this"}))  # type: ignore[attr-defined]

        self.hearing(work)

    def test_the_gatekeeper_is_called_what_it_is_asked_to_be(self) -> None:
        async def work(connector: Connector, heard: Heard) -> None:
            await self.joined(heard)
            self.assertEqual(await connector.account(), "gatekeeper")  # type: ignore[attr-defined]
            self.assertEqual(await connector.called(), "Gatekeeper")  # type: ignore[attr-defined]
            self.assertEqual(await connector.call("Kiln Keeper"), "Kiln Keeper")  # type: ignore[attr-defined]
            for refused in ("x", "much too long a name for anybody to read in a fast chat"):
                with self.assertRaises(NotPossible):  # type: ignore[attr-defined]
                    await connector.call(refused)
            act = {"effect": "say", "text": "who am I", "reply_to": None, "private_to": None}
            await carry_out(connector, f"named-{self.platform}", act)
            await soon(lambda: "who am I" in heard.texts())
            await connector.call("Gatekeeper")

        heard = self.hearing(work)
        said = next(event for event in heard.events if isinstance(event, Message) and event.text == "who am I")
        self.assertEqual((said.person.login, said.person.name), ("gatekeeper", "Kiln Keeper"))  # type: ignore[attr-defined]


class BrookContract(Contract, unittest.TestCase):
    platform = "brook"


class LanternContract(Contract, unittest.TestCase):
    platform = "lantern"


class PlazaContract(Contract, unittest.TestCase):
    platform = "plaza"


class Doors(unittest.TestCase):
    def test_a_wrong_token_is_shut_out(self) -> None:
        world = World()
        world.start_playhouse()
        try:
            self.assertEqual(
                httpx.post(f"{world.playhouse_address}/brook/say", json={"key": "k", "body": "x"}).status_code, 401
            )
            self.assertEqual(httpx.get(f"{world.playhouse_address}/lantern/status").status_code, 401)
        finally:
            world.stop()
