"""`kill -9` in the middle: everything is as it was, and nothing was said twice."""

from __future__ import annotations

import json
import unittest
from typing import Any

from websockets.sync.client import connect

from tests.support.world import World, eventually


class KillNine(unittest.TestCase):
    def setUp(self) -> None:
        self.world = World().start()
        self.addCleanup(self.world.stop)

    def screen_state(self) -> dict[str, list[tuple[object, ...]]]:
        tables = ("counters", "changes", "uses", "people", "rotas", "stream")
        return {t: self.world.rows("SELECT key, body FROM state WHERE name = ? ORDER BY key", t) for t in tables}

    def screen(self) -> Any:
        """What a screen that opens now is shown."""
        with self.world.client("bram") as client:
            cookie = f"gentlegate_session={client.cookies['gentlegate_session']}"
        address = self.world.address.replace("http", "ws", 1) + "/api/live"
        with connect(address, additional_headers={"Cookie": cookie}, proxy=None) as socket:
            return json.loads(socket.recv())["snapshot"]

    def test_state_and_chat_are_as_they_were_and_nothing_is_said_twice(self) -> None:
        world = self.world
        world.type("!lost", "bram", "moderator")
        world.type("!count mugs +3", "wren", "moderator", platform="lantern")
        world.type("!kiln", "thimblewick")
        spam = world.type("see other.test", "pushy")
        eventually(
            lambda: world.removed(spam) and len(world.texts("brook")) >= 3 and len(world.texts("lantern")) >= 1
        )
        eventually(lambda: not world.rows("SELECT 1 FROM outbox WHERE status IN ('waiting', 'sending')"))
        before = self.screen_state()
        world.kill_gate()
        meanwhile = world.type("typed while the gate was down", "ashfall")
        world.start_gate()
        eventually(lambda: world.rows("SELECT 1 FROM events WHERE message = ?", meanwhile))
        shown = {line["id"]: line for line in self.screen()["lines"]}
        self.assertEqual(shown[spam]["marks"][0]["outcome"], "nudge")
        self.assertEqual(shown[spam]["sending"]["remove"], "sent")
        after = self.screen_state()
        for table in ("counters", "changes", "uses", "people", "stream"):
            self.assertEqual(after[table], before[table], table)
        with world.client("bram") as client:
            answer = client.post("/api/desk/count", json={"name": "mugs", "step": "undo"}).json()
        self.assertEqual((answer["effects"][0]["before"], answer["effects"][0]["after"]), (3, 0))
        world.type("!kiln", "thimblewick")
        last = eventually(
            lambda: world.rows("SELECT body FROM effects WHERE effect = 'refused' ORDER BY seq DESC LIMIT 1")
        )
        self.assertIn('"why":"cooldown"', str(last[0][0]))
        for platform in ("brook", "lantern"):
            texts = world.texts(platform)
            self.assertEqual(len(texts), len(set(texts)), texts)

    def test_a_burst_cut_short_is_neither_lost_nor_doubled(self) -> None:
        world = self.world
        world.playhouse.post("/type", json={"platform": "brook", "login": "warm", "text": "up"})
        steps = 12
        for number in range(steps):
            world.type(f"!count mugs +{number + 1}", "bram", "moderator")
            if number == steps // 2:
                world.kill_gate()
        world.start_gate()
        expected = steps * (steps + 1) // 2

        def value() -> int:
            return int(
                world.rows(
                    "SELECT json_extract(body, '$.value') FROM state WHERE name = 'counters' AND key = 'mugs'"
                )[0][0]
            )

        eventually(lambda: value() == expected, 30)
        eventually(lambda: not world.rows("SELECT 1 FROM outbox WHERE status IN ('waiting', 'sending')"), 30)
        texts = [text for text in world.texts() if text.startswith("mugs pulled")]
        self.assertEqual(len(texts), len(set(texts)))
        moves = world.rows("SELECT count(*) FROM effects WHERE effect = 'counter'")[0][0]
        self.assertEqual(moves, steps)
