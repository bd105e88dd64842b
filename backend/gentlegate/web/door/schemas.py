"""What goes over the wire about logging in."""

from __future__ import annotations

from pydantic import Field

from gentlegate.web.schemas import DeskLevel, Wire


class LogIn(Wire):
    code: str = Field("", max_length=12, description="The second factor's, where the account asks for one.")
    login: str = Field(min_length=1, max_length=60)
    password: str = Field(min_length=1, max_length=200)


class Welcome(Wire):
    key: str = Field(description="The one-time key that the first start printed.")
    login: str = Field(min_length=2, max_length=60, pattern=r"^[\w.-]+$")
    name: str = Field(min_length=1, max_length=60)
    password: str = Field(min_length=10, max_length=200)


class Me(Wire):
    login: str
    name: str
    level: DeskLevel
    may: list[str] = Field(description="The acts that this account may do.")
