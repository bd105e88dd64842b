"""New passwords: long enough, and none that guessing tries first."""

from __future__ import annotations

from zxcvbn import zxcvbn

from gentlegate.web.problems import Refused

READ = 72
"""So much of a password is looked at; what is longer is hard to guess anyway."""
LEAST_GUESSES = 1_000_000


def check_new(password: str, *about: str, field: str = "password") -> None:
    """Refused where it is one of the common ones, or made of the names in `about`."""
    names = [word for text in about for word in (text, *text.split())]
    if zxcvbn(password[:READ], user_inputs=names)["guesses"] < LEAST_GUESSES:
        detail = "This password is one of the first that would be tried. Take three or four words that do not belong together."
        raise Refused(422, "password-weak", detail, field)
