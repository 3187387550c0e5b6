"""Under which names and addresses the shop's network knows this computer."""

import re
import socket
from ipaddress import ip_address
from typing import Final

import psutil

_NAME: Final = re.compile(r"[a-z0-9]([a-z0-9-]*[a-z0-9])?(\.[a-z0-9]([a-z0-9-]*[a-z0-9])?)*")


def names_here() -> list[str]:
    """The host's name, and the same as the network's own name service says it."""
    name = socket.gethostname().lower()
    plain = name.split(".")[0]
    return [one for one in dict.fromkeys((name, f"{plain}.local")) if _NAME.fullmatch(one)] or ["kelbrast.local"]


def addresses_here() -> list[str]:
    """The addresses (IPv4) of this computer in every network that it is in now; those of cables and radio before its own."""
    found = [one.address for each in psutil.net_if_addrs().values() for one in each if one.family == socket.AF_INET]
    return sorted(dict.fromkeys(found), key=lambda one: (ip_address(one).is_loopback, ip_address(one).is_link_local))


def reachable_here() -> list[str]:
    """The addresses that another device can use; without a network only this computer's own."""
    every = addresses_here()
    return [one for one in every if not ip_address(one).is_loopback] or every
