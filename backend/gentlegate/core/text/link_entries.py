"""Hosts, paths and addresses: how a browser would resolve them, and how a list's entry compares."""

from __future__ import annotations

import re
from collections.abc import Iterable
from dataclasses import dataclass
from functools import lru_cache

SCHEME = re.compile(r"\s*(?:h(?:tt|xx)ps?|ftp):[/\\]+", re.IGNORECASE)
_ESCAPE = re.compile(r"%([0-9a-fA-F]{2})")
_PLAIN = frozenset(b"abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789-._~")


@dataclass(frozen=True, slots=True)
class Address:
    """Where a link leads: `host` in its ASCII form, `path` resolved (begins with `/`), `query` with its `?`."""

    host: str
    path: str = "/"
    query: str = ""


@dataclass(frozen=True, slots=True)
class Entry:
    """One entry of a list of links. `exact` compares the whole address, otherwise the path is a beginning."""

    host: str
    path: str = ""
    query: str = ""
    exact: bool = False

    def covers(self, address: Address) -> bool:
        if self.exact:
            return (self.host, self.path, self.query) == (address.host, address.path, address.query)
        if address.host != self.host and not address.host.endswith("." + self.host):
            return False
        return not self.path or address.path == self.path or address.path.startswith(self.path + "/")


@lru_cache(maxsize=4096)
def ascii_host(host: str) -> str:
    """A host name as it stands in the DNS (RFC 3492): lower case, no final dot."""
    host = host.rstrip(".").lower()
    if host.isascii():
        return host
    labels = []
    for label in re.split("[.\u3002\uff0e\uff61]", host):
        folded = label.casefold()
        labels.append(folded if folded.isascii() else "xn--" + folded.encode("punycode").decode("ascii"))
    return ".".join(labels)


def resolve(host: str, tail: str) -> Address:
    """The address that a browser would go to; `tail` is all that follows host and port."""
    tail = tail.split("#", 1)[0]
    path, mark, query = tail.partition("?")
    path = _unescape(path.replace("\\", "/"))
    kept: list[str] = []
    for part in path.split("/")[1:]:
        if part == "..":
            kept = kept[:-1]
        elif part != ".":
            kept.append(part)
    return Address(ascii_host(_unescape(host)), "/" + "/".join(kept), mark + query)


def _unescape(text: str) -> str:
    def plain(match: re.Match[str]) -> str:
        byte = int(match[1], 16)
        return chr(byte) if byte in _PLAIN else match[0].upper()

    return _ESCAPE.sub(plain, text) if "%" in text else text


def read_entry(text: str) -> Entry:
    """Read `host`, `host/path` or a whole address. ValueError says what is wrong with it."""
    scheme = SCHEME.match(text)
    rest = text[scheme.end() :] if scheme else text.strip()
    if any(sign.isspace() for sign in rest.strip()):
        raise ValueError(f'"{text}" has a space in it; one entry is one host or address')
    match = re.fullmatch(r"(?:[^@/\\?#]*@)?(\[[0-9a-fA-F:.]+\]|[^:/\\?#]+)(?::\d+)?([/\\?#].*)?", rest.strip())
    if match is None:
        raise ValueError(f'"{text}" is no host such as kiln.example, nor an address')
    address = resolve(match[1].removeprefix("*."), match[2] or "")
    if not address.host or address.host.startswith(".") or ".." in address.host:
        raise ValueError(f'"{text}" is no host such as kiln.example, nor an address')
    if scheme and (address.path != "/" or address.query):
        return Entry(address.host, address.path, address.query, exact=True)
    path = address.path.rstrip("/")
    return Entry(address.host, path)


def _parents(host: str) -> list[str]:
    """The host and all above it."""
    labels = host.split(".")
    return [".".join(labels[i:]) for i in range(len(labels))]


class HostSet:
    """Hosts of imported lists; each stands for itself and its subdomains."""

    def __init__(self, hosts: Iterable[str]) -> None:
        self._hosts = frozenset(ascii_host(host) for host in hosts)

    def holds(self, host: str) -> bool:
        return bool(self._hosts) and any(parent in self._hosts for parent in _parents(ascii_host(host)))


_LISTED = re.compile(r"(?:(?:0\.0\.0\.0|127\.0\.0\.1|::1?)\s+)?(?:\*\.|\.)?([^\s/:#]+\.[^\s/:#]+)")
MOST_HOSTS = 200_000


def read_hosts(text: str) -> tuple[list[str], list[int]]:
    """The hosts of a hosts file or a plain list of domains, and the numbers of lines that hold none.

    Remarks (`#`, `!`, `;`) and empty lines are passed over. ValueError where there are more than MOST_HOSTS.
    """
    hosts: dict[str, None] = {}
    odd: list[int] = []
    for number, line in enumerate(text.splitlines(), start=1):
        line = re.split(r"[#!;]", line, maxsplit=1)[0].strip()
        if not line:
            continue
        match = _LISTED.fullmatch(line)
        if match is None:
            if line.split()[-1] not in ("localhost", "broadcasthost", "local"):
                odd.append(number)
            continue
        hosts[ascii_host(match[1])] = None
        if len(hosts) > MOST_HOSTS:
            raise ValueError(f"the list has more than {MOST_HOSTS:,} hosts")
    return list(hosts), odd


class EntryIndex:
    """Entries by host, so that a hundred thousand of them cost a look-up for each label of a link's host."""

    def __init__(self, entries: list[Entry], also: HostSet | None = None) -> None:
        self._also = also
        self._by_host: dict[str, list[tuple[int, Entry]]] = {}
        for index, entry in enumerate(entries):
            self._by_host.setdefault(entry.host, []).append((index, entry))

    def find(self, address: Address) -> int | None:
        """The index of the first entry that covers the address, or None."""
        best: int | None = None
        for host in _parents(address.host):
            for index, entry in self._by_host.get(host, ()):
                if (best is None or index < best) and entry.covers(address):
                    best = index
        return best

    def names(self, host: str) -> bool:
        """Whether an entry names this host or one above it."""
        if any(parent in self._by_host for parent in _parents(ascii_host(host))):
            return True
        return self._also is not None and self._also.holds(host)
