"""`backup`: the data copied to one file."""

from __future__ import annotations

import argparse
from pathlib import Path

from knollstack.commands.say import FAULTY, say
from knollstack.commands.serve import database_of
from knollstack.store.copies import back_up
from knollstack.store.opening import UnusableDatabaseError


def run_backup(arguments: argparse.Namespace) -> int:
    """Copy the database to one file, while the server may run."""
    try:
        back_up(database_of(arguments), Path(arguments.to))
    except UnusableDatabaseError as error:
        say(str(error))
        return FAULTY
    print(f"{arguments.to} written")
    return 0
