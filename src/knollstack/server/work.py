"""Work in processes of its own: light work at once, each person's in the same process; heavy work apart, one at a time.

A process is limited in memory, a job in time; a job whose page has gone is stopped. Without processes (`Inline`) the same
tasks run where they are called.
"""

from __future__ import annotations

import os
import resource
from collections import OrderedDict
from collections.abc import Callable
from concurrent.futures import Future, TimeoutError
from contextvars import ContextVar
from dataclasses import dataclass
from multiprocessing import get_context
from threading import Lock
from typing import Any, Protocol, TypeVar, cast

from pebble import ProcessExpired, ProcessPool

from knollstack.catalogue import load
from knollstack.core.document.faults import Fault, FaultyDesign
from knollstack.core.evaluation.tried import NotWantedError

R = TypeVar("R")
LIGHT_S, HEAVY_S = 15.0, 40.0
LIGHT_BYTES, HEAVY_BYTES = 1_500_000_000, 2_500_000_000
"""Address space of a process: what the interpreter and its libraries reserve is a few hundred MB of it."""
NICE = 15
LOOK_S = 0.05
MOST_PERSONS = 1_000
MOST_WAITING_S = 60.0


class TooMuchError(Exception):
    """A job that took longer, or more memory, than it may. The message says which."""


class GoneError(Exception):
    """Nobody waits for the answer any more."""


class Work(Protocol):
    """Where tasks are run."""

    def light(self, person: str, gone: Callable[[], bool], task: Callable[..., R], *args: Any) -> R: ...

    def heavy(self, person: str, gone: Callable[[], bool], task: Callable[..., R], *args: Any) -> R: ...


GONE: ContextVar[Callable[[], bool]] = ContextVar("gone", default=lambda: False)
"""Whether nobody waits for the task at hand any more, where it runs in the server itself."""


class Inline:
    """Tasks run where they are called; one that asks whether it is wanted stops once it is not."""

    def light(self, person: str, gone: Callable[[], bool], task: Callable[..., R], *args: Any) -> R:
        GONE.set(gone)
        try:
            return task(*args)
        except NotWantedError:
            raise GoneError from None

    heavy = light

    def start(self) -> None:
        """Nothing is to be had ready."""

    stop = start


@dataclass
class _Refused:
    """A document's faults on their way between processes."""

    faults: list[Fault]


def _run(task: Callable[..., R], args: tuple[Any, ...]) -> R | _Refused:
    try:
        return task(*args)
    except FaultyDesign as error:
        return _Refused(error.faults)


def _ready() -> None:
    load()


def _begin(most_bytes: int, nice: int) -> None:
    """Limits of a process, set before its first task."""
    resource.setrlimit(resource.RLIMIT_AS, (most_bytes, most_bytes))
    os.nice(nice)


class Pools:
    """Processes for light work, one a core, and for heavy work, one less than that, at the lowest of priorities."""

    def __init__(self, cores: int | None = None) -> None:
        cores = cores or len(os.sched_getaffinity(0))
        context = get_context("forkserver")
        context.set_forkserver_preload(["knollstack.server.tasks", "knollstack.server.work"])

        def pool(workers: int, most_bytes: int, nice: int) -> ProcessPool:
            return ProcessPool(workers, initializer=_begin, initargs=(most_bytes, nice), context=context)

        self.lanes = [pool(1, LIGHT_BYTES, 0) for _ in range(cores)]
        self.waiting = [0] * cores
        self.back = pool(max(1, cores - 1), HEAVY_BYTES, NICE)
        self.lane_of: OrderedDict[str, int] = OrderedDict()
        self.busy: OrderedDict[str, Lock] = OrderedDict()
        self.lock = Lock()

    def start(self) -> None:
        """Have every process up, with its tables, before the first question comes; does not wait for it."""
        for pool in (*self.lanes, self.back):
            pool.schedule(_ready)

    def stop(self) -> None:
        for pool in (*self.lanes, self.back):
            pool.stop()  # type: ignore[no-untyped-call]
            pool.join()

    def light(self, person: str, gone: Callable[[], bool], task: Callable[..., R], *args: Any) -> R:
        lane = self._lane(person)
        try:
            future = self.lanes[lane].schedule(_run, args=[task, args], timeout=LIGHT_S)
            return cast(R, _answer(future, LIGHT_S, gone, stop=False))
        finally:
            with self.lock:
                self.waiting[lane] -= 1

    def heavy(self, person: str, gone: Callable[[], bool], task: Callable[..., R], *args: Any) -> R:
        with self.lock:
            mine = self.busy.setdefault(person, Lock())
            self.busy.move_to_end(person)
            while len(self.busy) > MOST_PERSONS:
                self.busy.popitem(last=False)
        waited = 0.0
        while not mine.acquire(timeout=LOOK_S):  # one heavy job a person: the next waits for it
            waited += LOOK_S
            if gone():
                raise GoneError
            if waited > MOST_WAITING_S:
                raise TooMuchError("another long job of yours is not done yet")
        try:
            future = self.back.schedule(_run, args=[task, args], timeout=HEAVY_S)
            return cast(R, _answer(future, HEAVY_S, gone, stop=True))
        finally:
            mine.release()

    def _lane(self, person: str) -> int:
        """The process that knows a person's well; another one where that has a longer queue by two."""
        with self.lock:
            if person not in self.lane_of:
                counts = [list(self.lane_of.values()).count(i) for i in range(len(self.lanes))]
                self.lane_of[person] = counts.index(min(counts))
            self.lane_of.move_to_end(person)
            if len(self.lane_of) > MOST_PERSONS:
                self.lane_of.popitem(last=False)
            lane, shortest = self.lane_of[person], self.waiting.index(min(self.waiting))
            if self.waiting[lane] > self.waiting[shortest] + 1:
                lane = shortest
            self.waiting[lane] += 1
            return lane


def _answer(future: Future[Any], most_s: float, gone: Callable[[], bool], *, stop: bool) -> Any:
    """The result of a job. Where nobody waits for it any more it is not begun, or stopped where `stop` says so.

    Light work under way is let be: its process would have to be made anew, without what it knows.
    """
    while True:
        try:
            found = future.result(timeout=LOOK_S)
        except TimeoutError:
            if future.done():
                raise TooMuchError(f"it took longer than {most_s:.0f} s") from None
            if gone():
                if stop or not future.running():
                    future.cancel()
                raise GoneError from None
        except (MemoryError, ProcessExpired) as error:
            raise TooMuchError("it took more memory than there is for it") from error
        else:
            if isinstance(found, _Refused):
                raise FaultyDesign(found.faults)
            return found
