"""Who reaches a server: the addresses under which it answers, and whether others than this machine may use them."""

from __future__ import annotations

import ipaddress


def is_any(host: str) -> bool:
    """Whether a server that listens there listens on every address of the machine."""
    try:
        return ipaddress.ip_address(host).is_unspecified
    except ValueError:
        return host == ""


def is_beyond(host: str, names: list[str]) -> bool:
    """Whether others may reach it: another address than loopback, or a further name (a proxy stands before it)."""
    try:
        own = ipaddress.ip_address(host).is_loopback
    except ValueError:
        own = host == "localhost"
    return not own or bool(names)


def in_url(host: str) -> str:
    """A host as it stands in an address."""
    return f"[{host}]" if ":" in host else host


def addresses(host: str, names: list[str], port: int) -> list[str]:
    """The addresses that the server answers under: one that works on this machine first."""
    own = "::1" if ":" in host else "127.0.0.1"
    first = in_url(own if is_any(host) else host)
    return [f"http://{name}:{port}/" for name in dict.fromkeys((first, *names))]
