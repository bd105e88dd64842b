"""The platforms' table: what each takes and refuses, declared by its connector and true of the platform itself."""

from __future__ import annotations

import asyncio
import unittest
from collections.abc import Awaitable, Callable
from typing import Any, ClassVar

from gentlegate.connectors import KNOWN
from gentlegate.connectors.base import Connector, NotPossible
from gentlegate.core.events import Event, Happening
from gentlegate.demo.prepare import TOKEN
from tests.connectors.test_connectors import Heard, carry_out, soon
from tests.support.hooks import hook_door
from tests.support.world import World

MINUTE, HOUR, DAY = 60, 3600, 86400
TIMEOUTS = {
    "brook": ((5, 77, 21 * DAY), (4, 21 * DAY + 1)),
    "lantern": ((15, MINUTE, 6 * MINUTE, 30 * MINUTE, 20 * HOUR), (14, 61, 21 * HOUR)),
    "plaza": ((MINUTE, 9 * DAY), (59, 9 * DAY + 1)),
}
"""Lengths in seconds that are taken, and some that are not."""
ADS = {"brook": (20, 45, 75, 150), "lantern": (), "plaza": (40,)}
LENGTHS = {"brook": (480, 120), "lantern": (200, 96), "plaza": (320, 80)}
"""Of a message, of a title."""
CAN = {
    "brook": {"private", "threads", "marker", "clip", "raid", "shoutout", "followers_only"},
    "lantern": {"restore", "marker"},
    "plaza": {"private", "threads", "clip", "raid", "shoutout", "followers_only"},
}
ACTS: dict[str, dict[str, Any]] = {
    "marker": {"note": "first bowl"},
    "clip": {},
    "raid": {"target": "wickerworks"},
    "shoutout": {"target": "wickerworks"},
    "followers_only": {"on": True},
}


class Table(unittest.TestCase):
    world: ClassVar[World]

    @classmethod
    def setUpClass(cls) -> None:
        cls.world = World()
        cls.world.start_playhouse()

    @classmethod
    def tearDownClass(cls) -> None:
        cls.world.stop()

    def each(self, work: Callable[[str, Connector], Awaitable[None]]) -> None:
        """Go through the platforms, each live, with a connector that only sends."""

        async def run(platform: str) -> None:
            connector = KNOWN[platform](self.world.playhouse_address, TOKEN, self.world.address)
            try:
                await work(platform, connector)
            finally:
                await connector.close()

        for platform in KNOWN:
            with self.subTest(platform):
                self.world.go(platform, True, title="Bowls", category="Wheel throwing")
                asyncio.run(run(platform))

    async def sent(self, connector: Connector, effect: str, **values: Any) -> dict[str, Any] | None:
        self.number = getattr(self, "number", 0) + 1
        return await carry_out(connector, f"{self.id()}-{self.number}", {"effect": effect, **values})

    async def refused(self, connector: Connector, effect: str, **values: Any) -> None:
        with self.assertRaises(NotPossible, msg=f"{connector.name} took {effect} {values}"):
            await self.sent(connector, effect, **values)

    def state(self, platform: str) -> dict[str, Any]:
        return dict(self.world.playhouse.get("/state").json()["platforms"][platform])

    def test_what_is_declared(self) -> None:
        async def work(platform: str, connector: Connector) -> None:
            declared = connector.abilities
            said = {name for name in ("private", "threads", "restore", *ACTS) if getattr(declared, name)}
            self.assertEqual(said, CAN[platform])
            self.assertEqual((declared.length, declared.title), LENGTHS[platform])
            self.assertEqual(declared.ads, ADS[platform])
            taken, _ = TIMEOUTS[platform]
            self.assertEqual([declared.timeout(seconds) for seconds in taken], list(taken))
            self.assertEqual(declared.offline_chat, platform != "lantern")

        self.each(work)

    def test_timeouts(self) -> None:
        async def work(platform: str, connector: Connector) -> None:
            taken, refused = TIMEOUTS[platform]
            for seconds in taken:
                await self.sent(connector, "timeout", person=f"{platform}:u-pushy", seconds=seconds)
                left = self.state(platform)["shut_out"]["pushy"]
                self.assertAlmostEqual(left, seconds, delta=4)
            for seconds in refused:
                await self.refused(connector, "timeout", person=f"{platform}:u-pushy", seconds=seconds)

        self.each(work)

    def test_lengths(self) -> None:
        async def work(platform: str, connector: Connector) -> None:
            message, title = LENGTHS[platform]
            said = {"reply_to": None, "private_to": None}
            await self.sent(connector, "say", text="m" * message, **said)
            await self.refused(connector, "say", text="m" * (message + 1), **said)
            await self.sent(connector, "title", title="t" * title)
            await self.refused(connector, "title", title="t" * (title + 1))
            self.assertEqual(self.state(platform)["title"], "t" * title)

        self.each(work)

    def test_private_and_threaded_replies(self) -> None:
        async def work(platform: str, connector: Connector) -> None:
            asked = self.world.type("how hot is it?", platform=platform)
            whom = f"{platform}:u-thimblewick"
            await self.sent(connector, "say", text="quite", reply_to=asked, private_to=whom)
            line = self.world.lines(platform)[-1]
            can = platform != "lantern"
            self.assertEqual(line["reply_to"], asked if can else None)
            self.assertEqual(line["private_to"], "u-thimblewick" if can else None)

        self.each(work)

    def test_category(self) -> None:
        async def work(platform: str, connector: Connector) -> None:
            found = await connector.send("", {"effect": "lookup", "what": "category", "name": "glaze"})
            assert found is not None
            if platform == "plaza":
                self.assertEqual(found, {"any": True})
                await self.sent(connector, "category", category="Whatever comes to mind")
                return
            names = found["names"]
            self.assertEqual(len(names), 12 if platform == "lantern" else 24)
            await self.sent(connector, "category", category=names[1])
            await self.refused(connector, "category", category="Whatever comes to mind")
            self.assertEqual(self.state(platform)["category"], names[1])

        self.each(work)

    def test_what_it_does_besides(self) -> None:
        async def work(platform: str, connector: Connector) -> None:
            for effect, values in ACTS.items():
                if effect not in CAN[platform]:
                    await self.refused(connector, effect, **values)
                    continue
                answer = await self.sent(connector, effect, **values)
                if effect == "clip":
                    assert answer is not None
                    self.assertIn(f"https://{platform}.example/clips/", answer["link"])
            done = {one["what"] for one in self.state(platform)["done"]} - {"ad"}
            self.assertEqual(done, CAN[platform] & {"marker", "clip", "raid", "shoutout"})
            for target in ("raid", "shoutout"):
                await self.refused(connector, target, target="nobody_at_all")

        self.each(work)

    def test_ads(self) -> None:
        async def work(platform: str, connector: Connector) -> None:
            for seconds in ADS[platform]:
                await self.sent(connector, "ad", seconds=seconds)
            await self.refused(connector, "ad", seconds=33)
            lengths = tuple(one["seconds"] for one in self.state(platform)["done"] if one["what"] == "ad")
            self.assertEqual(lengths, ADS[platform])

        self.each(work)

    def test_channels_are_looked_up(self) -> None:
        async def work(platform: str, connector: Connector) -> None:
            async def look(name: str) -> Any:
                return await connector.send("", {"effect": "lookup", "what": "channel", "name": name})

            link = f"https://{platform}.example/wickerworks"
            entry = {"login": "wickerworks", "name": "Wicker Works", "link": link, "category": "Basket weaving"}
            self.assertEqual(await look("WickerWorks"), entry)
            self.assertEqual((await look("quietpots"))["category"], None)
            for name in ("nobody_at_all", "a/../b", "x?y=1&z#w", "ü ü"):
                self.assertIsNone(await look(name))

        self.each(work)

    def test_removal_of_an_old_message(self) -> None:
        async def work(platform: str, connector: Connector) -> None:
            for ago, taken in ((590, True), (610, platform != "plaza")):
                line = self.world.type("buy now", "pushy2", platform=platform, seconds_ago=ago)
                await (self.sent if taken else self.refused)(connector, "remove", message=line)
                self.assertEqual(self.world.removed(line, platform), taken)

        self.each(work)

    def test_happenings_come_from_all(self) -> None:
        async def run(platform: str) -> list[Event]:
            connector = KNOWN[platform](self.world.playhouse_address, TOKEN, self.world.address)
            heard = Heard()
            async with hook_door(self.world.port, connector):
                task = asyncio.create_task(connector.run(heard, None))
                await soon(lambda: "joined" in heard.lamps)
                await asyncio.sleep(0.3)
                for what, amount in (("follow", None), ("subscribe", 3), ("gift", 5), ("tip", 4.5), ("raid", 40)):
                    body = {"platform": platform, "what": what, "login": "rakurae", "amount": amount}
                    self.world.playhouse.post("/happening", json=body).raise_for_status()
                await soon(lambda: sum(isinstance(event, Happening) for event in heard.events) == 5)
                task.cancel()
                await asyncio.gather(task, return_exceptions=True)
                await connector.close()
            return [event for event in heard.events if isinstance(event, Happening)]

        for platform in KNOWN:
            with self.subTest(platform):
                self.world.go(platform, True)
                found = [
                    (one.what, one.amount, one.person.key if one.person else None)
                    for one in asyncio.run(run(platform))
                    if isinstance(one, Happening)
                ]
                who = f"{platform}:u-rakurae"
                expected = [("follow", None), ("subscribe", 3), ("gift", 5), ("tip", 4.5), ("raid", 40)]
                self.assertEqual(found, [(what, amount, who) for what, amount in expected])
