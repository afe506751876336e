"""The shop's own network: on which addresses its door stands, and the passphrase that opens it."""

import ipaddress
import os
import socket
from collections.abc import Sequence
from pathlib import Path

import segno
from pydantic import TypeAdapter

from ready_corner.launch.files import write_whole
from ready_corner.web.gate import LEAST, OPEN, Device, Gate, make_passphrase, open_with, seal

FILE, DEVICES = "shop.json", "devices.json"
# An address of a private network and one that is never anybody's: asked which of one's own would be used to reach it, no packet is sent.
PROBES = ("192.168.0.1", "10.0.0.1", "172.16.0.1", "192.0.2.1")


class NoShopError(RuntimeError):
    """There is no door to open: no network, or a passphrase that is none."""


def own_address() -> str:
    """Return the address of this machine on the network of the shop; raises NoShopError where it is on none."""
    for probe in PROBES:
        with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as asked:
            try:
                asked.connect((probe, 9))
            except OSError:
                continue
            found = str(asked.getsockname()[0])
            if not ipaddress.ip_address(found).is_loopback and found != "0.0.0.0":
                return found
    raise NoShopError("This machine is on no network. Join the shop's own, or name the address: ./start --shop ADDRESS")


def shop_address(named: str) -> str:
    """Return the address of the shop's door: the one named, or this machine's own. Raises NoShopError for one that nobody else can go to."""
    if named == OPEN or named.lower() == "localhost":
        raise NoShopError(
            f"{named} is this machine alone, which needs no door. Name its address in the shop's network, or none: ./start --shop"
        )
    return named or own_address()


def door_at(address: str, port: int) -> socket.socket:
    """Return a socket that listens on an address; raises NoShopError where it cannot."""
    try:
        named = ipaddress.IPv4Address(address)
        if named.is_unspecified or named.is_multicast:
            raise NoShopError(
                f"No phone can go to {address}. Name this machine's own address in the shop's network, or none: ./start --shop"
            )
        door = socket.socket()
        door.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        door.bind((address, port))
    except ValueError:
        raise NoShopError(f"“{address}” is no address such as 192.168.1.20. Name one of this machine's, or none.") from None
    except OSError as wrong:
        raise NoShopError(
            f"No door can be opened at {address}:{port}: {wrong.strerror}. Name another: ./start --shop ADDRESS"
        ) from None
    return door


def gate_for(folder: Path, url: str, *, anew: bool) -> tuple[Gate, str]:
    """Return the gate of a folder, and its passphrase where it was made just now; only its hash is kept.

    READY_CORNER_PASSPHRASE names one of the shop's own. ``anew``: make another, which lets every device go.
    """
    kept = folder / FILE
    made = ""
    own = os.environ.get("READY_CORNER_PASSPHRASE", "").strip()
    devices = folder / DEVICES
    if anew or not kept.exists():
        devices.unlink(missing_ok=True)
        made = own or make_passphrase()
        try:
            sealed = seal(made)
        except ValueError:
            raise NoShopError(
                f"READY_CORNER_PASSPHRASE is too short: give {LEAST} characters or more, dashes and spaces not counted, or none and one is made."
            ) from None
        write_whole(kept, sealed)
    try:
        if own and not made and not open_with(kept.read_text(), own):
            raise NoShopError(
                "READY_CORNER_PASSPHRASE is not the passphrase that opens this door. To change it, which lets every device go, add --new-passphrase; to keep it, name none."
            )
        gate = Gate(kept.read_text(), url, devices=_devices(devices), keep=lambda let_in: _keep_devices(devices, let_in))
        return gate, "" if own else made
    except (ValueError, KeyError):
        raise NoShopError(f"{kept} cannot be read. Make another passphrase: ./start --shop --new-passphrase") from None


_DEVICES: TypeAdapter[tuple[Device, ...]] = TypeAdapter(tuple[Device, ...])


def _devices(file: Path) -> tuple[Device, ...]:
    """Return the devices that were let in; none where that cannot be read, and then none is remembered as let go."""
    try:
        return _DEVICES.validate_json(file.read_bytes())
    except (OSError, ValueError):
        return ()


def _keep_devices(file: Path, let_in: Sequence[Device]) -> None:
    write_whole(file, _DEVICES.dump_json(tuple(let_in)).decode())


def announce(url: str, passphrase: str) -> None:
    """Say where the phone goes, as words and as a code to point it at."""
    print(f"In the shop's network: {url}", flush=True)
    segno.make(url, error="m").terminal(compact=True, border=2)
    if passphrase:
        print(f"Passphrase, said this once: {passphrase}\nAnother: ./start --shop --new-passphrase", flush=True)
