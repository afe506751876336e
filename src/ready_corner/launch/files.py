"""Small files beside the database: each whole or not at all, and for its owner alone."""

import os
from pathlib import Path


def write_whole(file: Path, text: str) -> None:
    """Write a file so that it is there whole, on the disk, or not at all."""
    new = file.with_name(f"{file.name}.new")
    new.unlink(missing_ok=True)
    with os.fdopen(os.open(new, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "w") as out:
        out.write(text)
        out.flush()
        os.fsync(out.fileno())
    new.replace(file)
    folder = os.open(file.parent, os.O_RDONLY)
    try:
        os.fsync(folder)
    finally:
        os.close(folder)
