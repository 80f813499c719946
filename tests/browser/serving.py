"""A server as a process of its own, forked from one that has everything imported: to start afresh takes seconds."""

import os
from contextlib import contextmanager
from multiprocessing import forkserver, get_context
from pathlib import Path

from knollstack.cli import main

CONTEXT = get_context("forkserver")
CONTEXT.set_forkserver_preload(
    [__name__, "tests.browser.warm", *(f"knollstack.server.{module}" for module in ("app", "demo", "work"))]
)


def begin():
    """Start what servers are forked from, before other processes start it with less in it: there is one for all."""
    forkserver.ensure_running()


def _serve(folder, processes, said):
    os.dup2(said.fileno(), 1)
    log = os.open(folder / "server.log", os.O_WRONLY | os.O_CREAT | os.O_APPEND)
    os.dup2(log, 2)
    main(["serve", "--port", "0", "--no-browser", "--data", str(folder), "--processes", processes])


@contextmanager
def serving(folder: Path, processes: str):
    """What a new server prints first, while it runs."""
    said, saying = CONTEXT.Pipe(duplex=False)
    process = CONTEXT.Process(target=_serve, args=(folder, processes, saying))
    process.start()
    saying.close()
    with open(said.fileno(), closefd=False) as lines:
        yield lines.readline()
    process.kill()  # a server that is asked to end first ends its work; nobody waits for that here
    process.join()
    said.close()
