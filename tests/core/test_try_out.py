from __future__ import annotations

import unittest
from typing import Any

from gentlegate.core.engine import Engine
from gentlegate.core.try_out import Attempt, made_up, try_out
from tests.support.logs import at, live, of, said, says

KIT: dict[str, Any] = {
    "commands": [
        {"name": "kiln", "reply": "hot, {{ person.name }}", "cooldown": {"everyone": "1m"}, "when": "live"}
    ],
    "counters": [{"name": "lost"}],
}


class TryOut(unittest.TestCase):
    def setUp(self) -> None:
        self.engine = Engine(KIT)
        self.engine.handle(live())
        self.engine.handle(says(1, "!kiln", "quillwort"))
        self.engine.state.take_changes()

    def attempt(
        self, text: str, level: str = "everyone", when: float = 10, login: str = "thimblewick", **more: Any
    ) -> list[Any]:
        names = (login, login)
        document, person = made_up(self.engine.document, "brook", f"u-{login}", names, level, at(when))
        state = self.engine.state.copy_for([person.key])
        found, effects = try_out(document, state, {}, Attempt(text, person, **{"live": True} | more), at(when))
        self.assertEqual(found, level)
        return effects

    def test_what_answers_and_what_refuses_it(self) -> None:
        self.assertEqual([(e.why, e.wait) for e in of(self.attempt("!kiln"), "refused")], [("cooldown", 51)])
        self.assertEqual(said(self.attempt("!kiln", "moderator")), ["hot, thimblewick"])
        self.assertEqual(said(self.attempt("!kiln", when=61)), ["hot, thimblewick"])
        self.assertEqual([e.why for e in of(self.attempt("!kiln", live=False), "refused")], ["offline"])
        self.assertEqual([e.effect for e in self.attempt("!count lost +1", "lead")], ["verdict", "counter", "say"])

    def test_another_moment_and_somebody_who_waits(self) -> None:
        self.assertEqual(said(self.attempt("!uptime", when=7200)), ["Live for 2 h."])
        document = KIT | {"commands": [KIT["commands"][0] | {"cooldown": {"person": "1m"}}]}
        self.engine.changes.apply(document)
        self.engine.handle(says(70, "!kiln", "quillwort"))
        self.assertEqual(
            [e.why for e in of(self.attempt("!kiln", when=80, login="quillwort"), "refused")], ["cooldown"]
        )
        self.assertEqual(said(self.attempt("!kiln", when=80)), ["hot, thimblewick"])

    def test_levels_and_newcomers(self) -> None:
        self.assertEqual(of(self.attempt("see bad.test", "regular"), "verdict")[0].outcome, "nudge")
        (verdict,) = of(self.attempt("@odalys @bram hello", new=True), "verdict")
        self.assertEqual((verdict.outcome, verdict.filter), ("remove", "newcomers"))
        self.assertEqual(of(self.attempt("@odalys @bram hello"), "verdict")[0].outcome, "allow")

    def test_nothing_is_touched(self) -> None:
        for text in ("!kiln", "see bad.test", "!count lost +5", "!teach tea x", "!mood party"):
            self.attempt(text, "broadcaster")
        self.assertEqual(self.engine.state.take_changes(), [])
        self.assertEqual(self.engine.document, KIT)
        self.assertEqual(self.engine.parts.counters.value(self.engine.parts.kit.counters[0]), 0)


if __name__ == "__main__":
    unittest.main()
