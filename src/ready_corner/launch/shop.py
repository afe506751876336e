"""The shop's own network: on which addresses its door stands, and the passphrase that opens it."""

import ipaddress
import os
import socket
from pathlib import Path

import segno

from ready_corner.web.gate import LEAST, Gate, make_passphrase, seal

FILE = "shop.json"
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


def door_at(address: str, port: int) -> socket.socket:
    """Return a socket that listens on an address; raises NoShopError where it cannot."""
    try:
        ipaddress.IPv4Address(address)
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
    if anew or not kept.exists():
        made = own or make_passphrase()
        try:
            sealed = seal(made)
        except ValueError:
            raise NoShopError(
                f"READY_CORNER_PASSPHRASE is too short: give {LEAST} characters or more, dashes and spaces not counted, or none and one is made."
            ) from None
        _write(kept, sealed)
    try:
        return Gate(kept.read_text(), url), "" if own else made
    except (ValueError, KeyError):
        raise NoShopError(f"{kept} cannot be read. Make another passphrase: ./start --shop --new-passphrase") from None


def _write(file: Path, text: str) -> None:
    """Whole or not at all, and for its owner alone."""
    new = file.with_suffix(".new")
    new.unlink(missing_ok=True)
    with os.fdopen(os.open(new, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "w") as out:
        out.write(text)
        out.flush()
        os.fsync(out.fileno())
    new.replace(file)


def announce(url: str, passphrase: str) -> None:
    """Say where the phone goes, as words and as a code to point it at."""
    print(f"In the shop's network: {url}", flush=True)
    segno.make(url, error="m").terminal(compact=True, border=2)
    if passphrase:
        print(f"Passphrase, said this once: {passphrase}\nAnother: ./start --shop --new-passphrase", flush=True)
