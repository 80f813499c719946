"""Work in processes: answers and faults come back, nothing takes longer or more than it may, and nobody waits for another."""

import os
import threading

import pytest

from knollstack.core.document.faults import Fault, FaultyDesign
from knollstack.server import tasks, work
from knollstack.server.work import GoneError, Inline, Pools, TooMuchError
from tests.browser import serving
from tests.helpers import demo


def here():
    return False


def gone():
    return True


def pid():
    return os.getpid()


def held_by(gate, mark):
    """Begins, and ends only when someone opens the gate, a named pipe, and closes it again."""
    gate.read_bytes()
    mark.touch()


@pytest.fixture
def gate(tmp_path):
    os.mkfifo(tmp_path / "gate")
    return tmp_path / "gate"


def greedy():
    return len(bytearray(8_000_000_000))


def faulty():
    raise FaultyDesign([Fault(path="/x", value="1", expected="2")])


def broken():
    raise ValueError("a bug")


def niceness():
    return os.nice(0)


@pytest.fixture(scope="module")
def pools():
    serving.begin()
    made = Pools(2)
    made.start()
    yield made
    made.stop()


def test_answers_and_faults_come_back(pools):
    for where in (pools, Inline()):
        for run in (where.light, where.heavy):
            assert run("me", here, divmod, 7, 2) == (3, 1)
            with pytest.raises(FaultyDesign, match="/x: 1; expected 2"):
                run("me", here, faulty)
            with pytest.raises(ValueError, match="a bug"):
                run("me", here, broken)
    assert pools.light("me", here, pid) != os.getpid()


def test_a_person_keeps_a_process_and_people_are_spread(pools):
    processes = {name: {pools.light(name, here, pid) for _ in range(4)} for name in ("a1", "b1", "c1", "d1")}
    assert all(len(found) == 1 for found in processes.values())
    assert len(set.union(*processes.values())) == 2
    assert pools.heavy("a1", here, pid) not in set.union(*processes.values())
    assert (pools.light("a1", here, niceness), pools.heavy("a1", here, niceness)) == (os.nice(0), 15)


def test_a_long_queue_is_shared(pools):
    """Six at once of one person do not wait for each other alone."""
    lanes = [pools._lane("crowd") for _ in range(6)]
    pools.waiting = [0, 0]
    assert lanes[0] == lanes[1], "the process that knows the well comes first"
    assert sorted(lanes.count(i) for i in (0, 1)) in ([2, 4], [3, 3])


@pytest.mark.parametrize("kind", ["light", "heavy"])
def test_too_long_and_too_much_are_stopped_and_the_next_runs(pools, monkeypatch, gate, tmp_path, kind):
    monkeypatch.setattr(work, f"{kind.upper()}_S", 0.5)
    run = getattr(pools, kind)
    with pytest.raises(TooMuchError, match="longer than"):
        run("long", here, held_by, gate, tmp_path / "late")
    monkeypatch.undo()
    with pytest.raises(TooMuchError, match="memory"):
        run("long", here, greedy)
    assert run("long", here, divmod, 7, 2) == (3, 1)
    assert not (tmp_path / "late").exists()


def test_heavy_work_stops_when_nobody_waits(pools, gate, tmp_path):
    """The one process for heavy work answers the next: so it was not left with a gate that nobody opens."""
    with pytest.raises(GoneError):
        pools.heavy("away", gone, held_by, gate, tmp_path / "done")
    assert pools.heavy("away", here, divmod, 7, 2) == (3, 1)
    assert not (tmp_path / "done").exists()


def test_one_heavy_job_a_person(pools, gate, tmp_path):
    first, second = tmp_path / "first", tmp_path / "second"
    job = threading.Thread(target=pools.heavy, args=("busy", here, held_by, gate, first))
    job.start()
    with gate.open("wb"):  # open as soon as the job is at it
        with pytest.raises(GoneError):
            pools.heavy("busy", gone, second.touch)
        pools.light("busy", here, pid)
        assert not first.exists(), "light work does not wait for it"
    pools.heavy("busy", here, pid)
    assert first.exists()
    assert not second.exists()
    job.join()


def test_answers_of_processes_are_those_made_here(pools, app):
    from knollstack.server import tasks
    from tests.helpers import demo

    for task, args in (
        (tasks.create_evaluation, ()),
        (tasks.create_loads, (2,)),
        (tasks.create_working, ("depths/2/maasp",)),
    ):
        assert pools.light("me", here, task, demo(), *args) == task(demo(), *args)


def test_without_processes_remedies_are_tried_no_longer_than_somebody_waits():
    """The page goes while the second is tried: the third is not begun."""
    asked = []

    def gone():
        asked.append(1)
        return len(asked) > 2

    document = demo()
    document["strings"][1]["shoe_md_ft"] = 900.0
    with pytest.raises(GoneError):
        Inline().heavy("me", gone, tasks.try_remedies, document)
    assert len(asked) == 3
