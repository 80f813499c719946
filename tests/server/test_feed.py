"""A feed over the API: read live, told as events, taken up again where it is lost, flooded; a file; the simulated rig."""

import contextlib
import json
import socket
import threading

import pytest

from knollstack.rig.channels import seconds_of
from knollstack.rig.wits import encoded
from knollstack.server.app import create_app
from knollstack.server.demo import load_demo
from knollstack.server.resuming import resume
from tests.server.test_api import DEMO, problem

FEED = f"/api/designs/{DEMO}/feed"
RIG = f"/api/designs/{DEMO}/simulated-rig"
PATIENCE_S = 20.0
WELL = 2


@pytest.fixture
def live(tmp_path):
    """An application whose feeds run, and its client."""
    (tmp_path / "dist").mkdir()
    app = create_app(tmp_path / "k.sqlite", web=tmp_path / "dist")
    load_demo(tmp_path / "k.sqlite")
    resume(app.extensions["feeds"])
    yield app.test_client()
    app.extensions["feeds"].stop_all()


def until(turn, question, what):
    """Asked again each time that something new is told on its turn."""
    with turn:
        found = turn.wait_for(question, PATIENCE_S)
    assert found, f"never came: {what}"
    return found


def turn_of(client):
    return client.application.extensions["feeds"].of(WELL).turn


class Rig:
    """A socket that speaks as it is told to whoever connects."""

    def __init__(self):
        self.listener = socket.create_server(("127.0.0.1", 0))
        self.port = self.listener.getsockname()[1]
        self.lines = []
        self.turn = threading.Condition()
        threading.Thread(target=self._accept, daemon=True).start()

    def _accept(self):
        with contextlib.suppress(OSError):
            while True:
                line = self.listener.accept()[0]
                with self.turn:
                    self.lines.append(line)
                    self.turn.notify_all()

    def say(self, data):
        until(self.turn, lambda: self.lines, "a reader")
        self.lines[-1].sendall(data)

    def hang_up(self):
        until(self.turn, lambda: self.lines, "a reader")
        self.lines.pop().close()

    def close(self):
        for line in (*self.lines, self.listener):
            line.close()


@pytest.fixture
def rig():
    made = Rig()
    yield made
    made.close()


def at(minute, second=0, **items):
    return encoded({"0105": "270308", "0106": f"06{minute:02d}{second:02d}", **items})


def connect(client, rig, **source):
    body = {"source": {"host": "127.0.0.1", "port": rig.port, **source}, "on": True}
    return client.put(FEED, json=body)


def spans(client):
    return client.get(f"{FEED}/spans").get_json()["spans"]


def state(client):
    return client.get(FEED).get_json()


def test_readings_are_thinned_and_kept_and_a_peak_is_not_lost(live, rig):
    assert state(live)["source"] is None
    assert connect(live, rig).status_code == 200
    for second, pit in enumerate((800, 812, 803, 801)):
        rig.say(at(0, second * 2, **{"0126": str(pit), "0110": "5000"}))
    rig.say(at(0, 12, **{"0126": "802"}) + at(0, 40, **{"0126": "806"}))
    until(turn_of(live), lambda: state(live)["counts"]["records"] == 6, "six records")
    turn = turn_of(live)
    live.put(FEED, json={"source": state(live)["source"], "on": False})
    found = until(turn, lambda: spans(live), "what is kept")
    assert [(s["begins_s"] - seconds_of("2027-03-08 06:00"), s["values"]["pit_bbl"]) for s in found] == [
        (0, [800, 801, 812]), (10, [802, 802, 802]), (40, [806, 806, 806])
    ]  # fmt: skip
    assert state(live)["state"] == "stopped"


def test_a_line_that_is_lost_is_told_and_taken_up_again(live, rig):
    connect(live, rig)
    rig.say(at(0, 0, **{"0110": "5000"}) + b"&&\r\n0110")
    until(turn_of(live), lambda: state(live)["counts"]["records"] == 1, "the first record")
    rig.hang_up()
    lost = until(turn_of(live), lambda: (s := state(live))["state"] == "lost" and s, "that it is lost")
    assert lost["why"] == "closed by the other side"
    until(rig.turn, lambda: rig.lines, "a second call")
    rig.say(at(0, 20, **{"0110": "5001"}))
    again = until(turn_of(live), lambda: (s := state(live))["counts"]["records"] == 2 and s, "a record on the new line")
    assert again["state"] == "connected"
    assert again["counts"]["broken"] == again["counts"]["bad_lines"] == 0, (
        "half a record of the old line is gone with it"
    )
    assert spans(live)[0]["values"]["hole_md_ft"][1] == 5000, "what came before is kept"


def test_nobody_there_is_lost_too_and_tried_on(live):
    with socket.create_server(("127.0.0.1", 0)) as taken:
        port = taken.getsockname()[1]
    live.put(FEED, json={"source": {"host": "127.0.0.1", "port": port}, "on": True})
    assert (
        until(turn_of(live), lambda: (s := state(live))["state"] == "lost" and s, "lost")["why"] == "Connection refused"
    )


def events(client, most=6):
    answer = client.get(f"{FEED}/events", buffered=False)
    assert answer.content_type.startswith("text/event-stream")
    found = []
    for chunk in answer.response:
        text = chunk.decode() if isinstance(chunk, bytes) else chunk
        if text.startswith("id:"):
            number, data = text.split("\n")[:2]
            found.append((int(number[4:]), json.loads(data[6:])))
        if len(found) >= most or (found and found[-1][1]["spans"]):
            break
    answer.close()
    return found


def test_pages_hear_of_it_as_events_and_go_on_where_they_were(live, rig):
    connect(live, rig)
    rig.say(b"".join(at(m, 0, **{"0110": f"{5000 + m}"}) for m in range(4)))
    until(turn_of(live), lambda: state(live)["counts"]["records"] == 4, "four records")
    number, told = events(live)[-1]
    assert told["state"] == "connected"
    assert told["latest"]["hole_md_ft"] == 5003
    assert [s["values"]["hole_md_ft"][1] for s in told["spans"]] == [5000, 5001, 5002]
    rig.say(at(5, 0, **{"0110": "5009"}))
    until(turn_of(live), lambda: state(live)["counts"]["records"] == 5, "one more")
    answer = live.get(f"{FEED}/events", headers={"Last-Event-ID": str(number)}, buffered=False)
    first = next(iter(answer.response))
    answer.close()
    data = json.loads((first.decode() if isinstance(first, bytes) else first).split("data: ")[1])
    assert [s["values"]["hole_md_ft"][1] for s in data["spans"]] == [5003], "only what is new"
    assert problem(live.get("/api/designs/1/feed/events"), 404)


def test_a_flood_neither_stops_the_server_nor_fills_the_stream(live, rig):
    """Twenty thousand lines at once, twice what is asked of a second: the page's questions are answered meanwhile."""
    connect(live, rig)
    flood = b"".join(at(s // 60 % 60, s % 60, **{"0110": f"{5000 + s / 100}", "0126": "800"}) for s in range(3_300))
    threading.Thread(target=rig.say, args=(flood,), daemon=True).start()
    until(turn_of(live), lambda: state(live)["counts"]["records"] > 0, "the first")
    asked = [live.get("/api/designs").status_code for _ in range(5)]
    assert asked == [200] * 5
    until(turn_of(live), lambda: state(live)["counts"]["records"] == 3_300, "all of them")
    assert state(live)["counts"]["bad_lines"] == 0
    assert len(events(live)) <= 2, "they are told together"
    turn = turn_of(live)
    live.put(FEED, json={"source": state(live)["source"], "on": False})
    assert len(until(turn, lambda: len(s := spans(live)) == 330 and s, "every span")) == 330


def test_a_feed_that_was_on_is_read_again_by_the_next_server(live, rig, tmp_path):
    connect(live, rig)
    rig.say(at(0, 0, **{"0110": "5000"}))
    until(turn_of(live), lambda: state(live)["counts"]["records"] == 1, "a record")
    turn = turn_of(live)
    live.application.extensions["feeds"].stop_all()
    until(turn, lambda: spans(live), "written when it ended")
    app = create_app(tmp_path / "k.sqlite", web=tmp_path / "dist")
    resume(app.extensions["feeds"])
    try:
        until(rig.turn, lambda: len(rig.lines) == 2, "a new call")
        assert app.test_client().get(FEED).get_json()["state"] in ("connecting", "connected")
        told = events(app.test_client())[-1][1]
        assert [s["values"]["hole_md_ft"][1] for s in told["spans"]] == [5000], "what came before is there"
    finally:
        app.extensions["feeds"].stop_all()


@pytest.mark.parametrize(
    ("source", "path"),
    [
        ({"host": "a b", "port": 1}, "/source/host"),
        ({"host": "rig", "port": 0}, "/source/port"),
        ({"host": "rig", "port": 70_000}, "/source/port"),
        ({"host": "rig", "port": 1, "protocol": "smoke"}, "/source/protocol"),
        ({"host": "rig", "port": 1, "codes": {"12": "pit_bbl"}}, "/source/codes/12/[key]"),
        ({"host": "rig", "port": 1, "codes": {"2101": "heart"}}, "/source/codes/2101"),
        ({"host": "rig", "port": 1, "limits": {"pit_gain_bbl": -1.0}}, "/source/limits/pit_gain_bbl"),
    ],
)
def test_a_feed_that_cannot_be_is_refused_at_its_place(client, source, path):
    assert problem(client.put(FEED, json={"source": source, "on": True}), 422)["faults"][0]["path"] == path
    assert state(client)["source"] is None


def test_readings_of_a_file_are_taken_with_those_that_came_live(client):
    text = "time,Hole depth (m),Hook load (klbf)\n2027-03-08 06:00:00,1000,150\n2027-03-08 06:00:30,1001,151\nx,y,z\n"
    taken = client.post(f"{FEED}/file", data=text.encode(), content_type="application/octet-stream").get_json()
    assert taken == {"readings": 2, "spans": 2, "bad_lines": 1, "channels": ["hole_md_ft", "hook_lbf"]}
    assert [round(s["values"]["hole_md_ft"][1]) for s in spans(client)] == [3281, 3284]
    for data in (b"", b"nothing\nof, a, feed", b"\xff\xfe\x00\x01"):
        fault = problem(client.post(f"{FEED}/file", data=data, content_type="application/octet-stream"), 422)["faults"][
            0
        ]
        assert fault["expected"].startswith("a line of headers")
    assert client.delete(f"{FEED}/spans").status_code == 204
    assert spans(client) == []


def test_points_of_a_leak_off_test_are_read_between_two_times(client):
    rows = "".join(f"2027-03-13 05:{m:02d}:00,{0.25 * m},{30 * m}\n" for m in range(12))
    text = f"time,Cement pumped (bbl),Cement pump (psi)\n{rows}"
    client.post(f"{FEED}/file", data=text.encode(), content_type="application/octet-stream")
    ask = f"{FEED}/points?begins=2027-03-13 05:02&ends=2027-03-13 05:04"
    found = [(p["volume_bbl"], p["pressure_psi"]) for p in client.get(ask).get_json()["points"]]
    assert found == [(0.0, 60.0), (0.25, 90.0), (0.5, 120.0)]
    assert problem(client.get(f"{FEED}/points?begins=now&ends=2027-03-13 05:04"), 422)["faults"][0]["path"] == "/begins"


def test_a_simulated_rig_is_read_as_a_feed_and_stopped(live):
    body = {"speed": 600.0, "from_md_ft": 6000.0, "seed": 2, "troubles": ["kick@6001"]}
    begun = live.post(RIG, json=body)
    assert begun.status_code == 200
    assert begun.get_json()["simulated"]
    until(
        turn_of(live), lambda: (s := state(live))["state"] == "connected" and s["counts"]["records"] > 20, "its records"
    )
    until(turn_of(live), lambda: len(spans(live)) > 3, "what it brings is kept")
    assert live.delete(RIG).get_json()["on"] is False
    assert state(live)["state"] == "stopped"
    fault = problem(live.post(RIG, json=body | {"troubles": ["losses@6000", "fire@1"]}), 422)["faults"]
    assert [f["path"] for f in fault] == ["/troubles/1"]
    assert problem(live.post("/api/designs/99/simulated-rig", json=body), 404)


def test_where_no_feed_is_read_no_rig_is_simulated(client):
    assert "reads no feed" in problem(client.post(RIG, json={}), 503)["detail"]
    assert client.put(FEED, json={"source": {"host": "rig", "port": 1}, "on": True}).get_json()["state"] == "stopped"


def test_departures_are_told_of_what_is_sent(client):
    rows = [{"begins_s": 10 * k, "span_s": 10, "values": {"pit_bbl": [800 + k, 800 + k, 800 + k]}} for k in range(20)]
    body = {"planned": {"doing": "drilling"}, "spans": rows}
    told = {d["watch"]: d["severity"] for d in client.post("/api/departures", json=body).get_json()["departures"]}
    assert told == {
        "pit gain": "stop",
        "flow": "unknown",
        "shut in": "unknown",
        "days": "unknown",
        "stuck pipe": "unknown",
    }
    assert problem(client.post("/api/departures", json={"planned": {"doing": "resting"}, "spans": rows}), 422)
