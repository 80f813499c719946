"""Who uses a data folder: servers share it, a restore has it alone. The lock goes with the process that holds it."""

from __future__ import annotations

import fcntl
from pathlib import Path
from typing import IO


def hold(folder: Path, alone: bool) -> IO[bytes] | None:
    """Hold a folder as long as the file returned is open; None where another holds it so that this is not possible."""
    file = (folder / "knollstack.lock").open("wb")
    try:
        fcntl.flock(file, (fcntl.LOCK_EX if alone else fcntl.LOCK_SH) | fcntl.LOCK_NB)
    except OSError:
        file.close()
        return None
    return file
