"""`serve`, `demo`, `dev` and `restore`: a database opened, and the application served from it."""

from __future__ import annotations

import argparse
import contextlib
import os
import signal
import sys
import webbrowser
from collections.abc import Iterator
from datetime import UTC, datetime
from pathlib import Path
from typing import TYPE_CHECKING, Any

from knollstack.commands.reach import addresses, in_url, is_any, is_beyond
from knollstack.commands.say import FAULTY, say
from knollstack.store.accounts import list_accounts
from knollstack.store.copies import put_back
from knollstack.store.database import connect
from knollstack.store.lock import hold
from knollstack.store.opening import UnusableDatabaseError, prepare

if TYPE_CHECKING:
    from knollstack.server.work import Inline, Pools


def database_of(arguments: argparse.Namespace) -> Path:
    """The file of a command's data; its folder is made where it is not there."""
    folder = Path(arguments.data)
    try:
        folder.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise UnusableDatabaseError(f"{folder}: {error.strerror}; expected a folder that can be written") from error
    names = {"demo": "demo.sqlite", "dev": "dev.sqlite"}
    demo = getattr(arguments, "demo", False)
    return folder / names.get("demo" if demo else arguments.command, "knollstack.sqlite")


@contextlib.contextmanager
def held(folder: Path, alone: bool = False) -> Iterator[None]:
    """A data folder in use; raises UnusableDatabaseError where another has it so that this is not possible."""
    try:
        lock = hold(folder, alone)
    except OSError as error:
        raise UnusableDatabaseError(f"{folder}: {error.strerror}; make it writable for this user") from error
    if lock is None:
        what = "a server uses it; stop that first" if alone else "a restore is under way; wait for it"
        raise UnusableDatabaseError(f"{folder}: {what}")
    with lock:
        yield


def run_serve(arguments: argparse.Namespace) -> int:
    """Serve the application; `demo` uses a database of its own with the demo wells; port 0 takes a free one."""
    try:
        database = database_of(arguments)
        with held(database.parent):
            return _serve(arguments, database)
    except UnusableDatabaseError as error:
        say(str(error))
        return FAULTY


def _serve(arguments: argparse.Namespace, database: Path) -> int:
    from knollstack.server.work import Inline, Pools

    signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))
    beyond = is_beyond(arguments.host, arguments.host_name)
    if beyond and not arguments.open and not _has_accounts(database):
        say(
            f"{arguments.host}: others can reach this server, and there is no account to sign in with. Add one with\n"
            "  knollstack user add NAME\nor let everyone in who reaches it with --open"
        )
        return FAULTY
    own = set() if is_any(arguments.host) else {in_url(arguments.host)}
    work = Inline() if arguments.processes == 0 else Pools(arguments.processes)
    try:
        return _serve_with(work, arguments, database, own | set(arguments.host_name), beyond)
    finally:
        work.stop()


def _serve_with(
    work: Inline | Pools, arguments: argparse.Namespace, database: Path, hosts: set[str], beyond: bool
) -> int:
    from waitress.server import create_server

    from knollstack.server.app import create_app
    from knollstack.server.demo import load_demo
    from knollstack.server.resuming import resume

    app = create_app(database, hosts, beyond=beyond, open_to_all=arguments.open, work=work)
    work.start()
    if arguments.command == "demo":
        load_demo(database)
    try:
        server: Any = create_server(app, host=arguments.host, port=arguments.port, **_options(arguments.behind_proxy))
    except OSError as error:
        say(f"{arguments.host}:{arguments.port}: {error.strerror}; expected a free port (--port 0 takes one)")
        return FAULTY
    # a name such as localhost may listen twice, on its IPv4 and its IPv6 address
    listens = getattr(server, "effective_listen", None)
    port = listens[0][1] if listens else server.effective_port
    first, *others = addresses(arguments.host, arguments.host_name, port)
    print(f"Knollstack is at {first} (Ctrl-C stops it). Data: {database}", flush=True)
    for address in others:
        print(f"  and at {address}", flush=True)
    if is_any(arguments.host) and not arguments.host_name:
        say("It answers under this machine's own addresses alone: name those that others use with --host-name.")
    if beyond:
        say(
            "Others can reach this server, and everyone who does may change every well."
            if arguments.open
            else "Others can reach this server. Put it behind a proxy with TLS: without it passwords can be read on the way."
        )
    if not arguments.no_browser and (os.environ.get("DISPLAY") or sys.platform == "darwin"):
        webbrowser.open(first)
    feeds = app.extensions["feeds"]
    resume(feeds)
    try:
        server.run()
    finally:
        feeds.stop_all()
    return 0


THREADS, CONNECTIONS, IDLE_S = 32, 200, 60
"""Threads wait for processes that do the work; connections are those of some forty people."""


def _options(behind_proxy: bool) -> dict[str, Any]:
    from knollstack.server.app import BODY_LIMIT

    options: dict[str, Any] = {
        "threads": THREADS,
        "clear_untrusted_proxy_headers": True,
        "max_request_body_size": BODY_LIMIT + 1024,
        "connection_limit": CONNECTIONS,
        "channel_timeout": IDLE_S,
        "send_bytes": 1,  # an event goes out as it comes
        "channel_request_lookahead": 1,  # tells of a page that has gone while its work is done
    }
    if behind_proxy:
        options |= {"trusted_proxy": "127.0.0.1", "trusted_proxy_headers": {"x-forwarded-for", "x-forwarded-proto"}}
    return options


def _has_accounts(database: Path) -> bool:
    prepare(database)
    with contextlib.closing(connect(database)) as connection:
        return bool(list_accounts(connection))


def run_dev(arguments: argparse.Namespace) -> int:
    """Serve the demo wells from a database of their own, starting anew whenever the code changes."""
    from knollstack.server.app import create_app
    from knollstack.server.demo import load_demo

    try:
        database = database_of(arguments)
        app = create_app(database)
    except UnusableDatabaseError as error:
        say(str(error))
        return FAULTY
    load_demo(database)
    app.run(host="127.0.0.1", port=arguments.port, use_reloader=True)
    return 0


def run_restore(arguments: argparse.Namespace) -> int:
    """Put a backup in the place of the data, which is moved aside, and serve it."""
    stamp = datetime.now(UTC).strftime("%Y%m%dT%H%M%SZ")
    try:
        database = database_of(arguments)
        with held(database.parent, alone=True):
            aside = put_back(Path(arguments.file), database, stamp)
    except UnusableDatabaseError as error:
        say(str(error))
        return FAULTY
    print(f"{arguments.file} is put back." + (f" What was there before is now {aside}" if aside else ""), flush=True)
    return 0 if arguments.no_start else run_serve(arguments)
