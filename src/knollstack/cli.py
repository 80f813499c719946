"""The command line: what can be said at the terminal."""

from __future__ import annotations

import argparse
import math
import os
import sys
from collections.abc import Callable
from pathlib import Path
from typing import Any

from knollstack.commands.backup import run_backup
from knollstack.commands.evaluate import run_evaluate, run_openapi
from knollstack.commands.formula import run_formula
from knollstack.commands.rig import run_rig
from knollstack.commands.serve import run_dev, run_restore, run_serve
from knollstack.commands.user import run_user
from knollstack.rig.simulated.playing import FASTEST
from knollstack.rig.simulated.troubles import Trouble, parse_trouble

DATA = Path(__file__).resolve().parents[2] / "data"


def _port(text: str) -> int:
    if not text.isdecimal() or int(text) > 65_535:
        raise argparse.ArgumentTypeError(f"{text}; expected a whole number from 0 to 65535")
    return int(text)


def _processes(text: str) -> int:
    if not text.isdecimal() or int(text) > 64:
        raise argparse.ArgumentTypeError(f"{text}; expected a whole number from 0 to 64")
    return int(text)


def _serving(command: argparse.ArgumentParser) -> None:
    """What every command that serves takes."""
    command.add_argument("--host", default="127.0.0.1")
    command.add_argument("--port", type=_port, default=8765, help="0 takes a free one and says which")
    command.add_argument("--host-name", action="append", default=[], help="a further host name to answer for")
    command.add_argument("--data", default=str(DATA), help="folder of the database")
    command.add_argument("--no-browser", action="store_true")
    command.add_argument(
        "--processes", type=_processes, help="for light work; usually one a core, 0 works in the server itself"
    )
    command.add_argument("--open", action="store_true", help="let everyone in who reaches the server, without accounts")
    command.add_argument(
        "--behind-proxy", action="store_true", help="a proxy on this machine tells address and scheme (X-Forwarded-*)"
    )


def _servers(commands: Any) -> None:
    for name, text in (("serve", "serve your own data"), ("demo", "serve the demo wells")):
        command = commands.add_parser(name, help=text)
        _serving(command)
        command.set_defaults(run=run_serve)
    command = commands.add_parser("dev", help="serve the demo wells, with reload")
    command.add_argument("--port", type=_port, default=8765)
    command.add_argument("--data", default=str(DATA), help="folder of the database")
    command.set_defaults(run=run_dev)


def _keeping(commands: Any) -> None:
    command = commands.add_parser("backup", help="copy your data to one file")
    command.add_argument("to")
    command.add_argument("--data", default=str(DATA), help="folder of the database")
    command.set_defaults(run=run_backup)
    command = commands.add_parser("restore", help="put a backup in the place of your data, and serve it")
    command.add_argument("file")
    _serving(command)
    command.add_argument("--no-start", action="store_true", help="put it back, and do not serve it")
    command.set_defaults(run=run_restore)


def _people(commands: Any) -> None:
    command = commands.add_parser("user", help="the accounts of a server that more than one person uses")
    acts = command.add_subparsers(dest="act", required=True)
    for name, text in (
        ("add", "add an account; its password is asked for, or read from a pipe"),
        ("list", "name all accounts"),
        ("role", "give an account another role"),
        ("password", "give an account another password"),
        ("remove", "end an account; its name stays taken, since signatures carry it"),
    ):
        act = acts.add_parser(name, help=text)
        if name != "list":
            act.add_argument("name")
        if name in ("add", "role"):
            act.add_argument("--role", choices=("viewer", "designer", "approver"), default="designer")
        act.add_argument("--data", default=str(DATA), help="folder of the database")
        act.add_argument("--demo", action="store_true", help="accounts of the demo wells")
    command.set_defaults(run=run_user)


def _trouble(text: str) -> Trouble:
    try:
        return parse_trouble(text)
    except ValueError as error:
        raise argparse.ArgumentTypeError(str(error)) from error


def _number(least: float, most: float) -> Callable[[str], float]:
    def read(text: str) -> float:
        try:
            value = float(text)
        except ValueError:
            value = math.nan
        if not least <= value <= most:
            raise argparse.ArgumentTypeError(f"{text}; expected a number from {least:g} to {most:g}")
        return value

    return read


def _rig(commands: Any) -> None:
    command = commands.add_parser("rig", help="a simulated rig that plays a well file over WITS level 0")
    command.add_argument("file")
    command.add_argument("--speed", type=_number(0.1, FASTEST), default=60.0, help="times as fast as the clock")
    command.add_argument(
        "--trouble",
        type=_trouble,
        action="append",
        default=[],
        metavar="NAME@DEPTH",
        help="losses@7200; as often as wanted",
    )
    command.add_argument(
        "--start", type=_number(0, 40_000), default=0.0, help="depth in ft at which it begins to drill"
    )
    command.add_argument("--seed", type=int, default=1, help="of the noise")
    command.add_argument("--host", default="127.0.0.1")
    command.add_argument("--port", type=_port, default=8766, help="0 takes a free one and says which")
    command.set_defaults(run=run_rig)


def parser() -> argparse.ArgumentParser:
    top = argparse.ArgumentParser(prog="knollstack", description="Casing program design.")
    commands = top.add_subparsers(dest="command", required=True)
    _servers(commands)
    _keeping(commands)
    _people(commands)
    _rig(commands)
    command = commands.add_parser("evaluate", help="print a well file's evaluation as JSON")
    command.add_argument("file")
    command.set_defaults(run=run_evaluate)
    command = commands.add_parser("formula", help="work one formula, or check a file of cases")
    command.add_argument("name", nargs="?")
    command.add_argument("inputs", nargs="*", metavar="key=value")
    command.add_argument("--list", action="store_true")
    command.add_argument("--cases")
    command.set_defaults(run=run_formula)
    command = commands.add_parser("openapi", help="write docs/openapi.json and docs/well.schema.json")
    command.add_argument("--folder", default="docs")
    command.set_defaults(run=run_openapi)
    return top


def main(argv: list[str] | None = None) -> int:
    arguments = parser().parse_args(argv)
    try:
        result: int = arguments.run(arguments)
        sys.stdout.flush()
    except BrokenPipeError:  # whoever read has read enough
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return 0
    return result
