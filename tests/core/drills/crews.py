"""Scripted crews: each looks at the panel's truth as a crew would at its gauges, and acts by the posted procedure."""

from knollstack.core.drills.events import DrillDoing
from knollstack.core.drills.rules_kill import kill_ppg


class Crew:
    """Acts on a play; refuses nothing that the drill refuses without saying so."""

    def __init__(self, play):
        self.play = play
        self.setup = play.made.setup

    def do(self, action, **more):
        event = self.play.act(DrillDoing(at_s=self.play.clock_s, action=action, **more))
        assert not event.refused, f"{action}: {event.refused}"
        return event

    def wait(self, seconds):
        self.play.advance(self.play.clock_s + seconds)

    def until(self, holds, most=3600):
        for _ in range(most):
            if holds():
                return
            self.wait(1)
        raise AssertionError("it never came")

    def find(self, *elements, on=None, leaking=False):
        """The topmost element of a kind that seals on what is across it now."""
        state = self.play.state
        fits = [
            e
            for e in reversed(self.setup.elements)
            if (e.element in elements or e.kind in elements)
            and state.verdict(e) in ("seals", "seals and hangs", "diverts")
            and e.index not in self.play.made.out_of_service
            and not (on and state.across(e) != on)
        ]
        return fits[0]

    def close(self, e):
        self.do("close", target=e.index)

    def sign(self):
        self.until(lambda: self.play.first_sign_s is not None)
        self.wait(20)

    def stop(self):
        """Drilling: pick up, pumps off, flow check."""
        self.do("pick up")
        self.until(lambda: self.play.state.moves.target_md_ft is None)
        self.do("pump", value=0.0)
        self.until(lambda: self.play.state.spm < 1)
        if self.play.policy.flow_check:
            self.do("flow check")
            self.wait(15)

    def shut(self, e):
        """Close by policy's school."""
        if self.play.policy.shut_in == "soft":
            self.do("open choke line")
            self.do("choke", value=0.5)
            self.close(e)
            self.until(lambda: self.play.state.position[e.index] >= 1)
            self.do("choke", value=0.0)
        else:
            self.close(e)
            self.until(lambda: self.play.state.position[e.index] >= 1)
            self.do("open choke line")

    def read(self, pipe=True):
        self.until(lambda: self.play.settled)
        now = self.play.state.now
        more = {"sidpp_psi": now.pipe_psi} if pipe else {}
        self.do("record", sicp_psi=now.top_psi, gain_bbl=self.play.gain_bbl, **more)

    def first(self):
        return self.find("annular") if self.play.policy.first == "annular" else self.find("pipe rams", "variable rams")

    def trip_valve(self):
        if self.play.made.scene.kind in ("tripping", "swab"):
            self.do("slips")
            if self.play.policy.flow_check:
                self.do("flow check")
                self.wait(10)
        self.do("stab valve")
        self.do("close valve")


def drilling(crew):
    crew.sign()
    crew.stop()
    crew.shut(crew.first())
    hang(crew)
    crew.read()


def hang(crew):
    if crew.setup.at_sea:
        ram = crew.find("pipe rams", "variable rams")
        crew.close(ram)
        crew.wait(15)
        crew.do("hang off")


def tripping(crew):
    crew.sign()
    crew.trip_valve()
    crew.shut(crew.first())
    crew.read(pipe=False)


def swab(crew):
    tripping(crew)
    annular = crew.play.policy.first == "annular"
    if not annular:
        crew.close(crew.find("annular"))
        crew.wait(40)
        for e in crew.setup.elements:
            if e.kind == "ram":
                crew.do("open", target=e.index)
        crew.wait(40)
    crew.do("hold casing pressure")
    crew.do("strip in")
    crew.wait(180)
    crew.do("stop pipe")


def no_pipe(crew):
    crew.sign()
    crew.shut(crew.find("blind rams", "blind shear rams"))
    crew.read(pipe=False)


def collars(crew):
    crew.sign()
    crew.trip_valve()
    crew.shut(crew.find("annular"))
    crew.read(pipe=False)


def casing(crew):
    crew.sign()
    crew.do("fill casing")
    collars_rest(crew)


def collars_rest(crew):
    crew.do("stab valve")
    crew.do("close valve")
    crew.shut(crew.find("annular"))
    crew.read(pipe=False)


def unshearable(crew):
    crew.sign()
    crew.trip_valve()
    annular = crew.find("annular")
    crew.close(annular)
    crew.wait(int(annular.seconds) + 20)
    crew.do("drop")
    crew.wait(5)
    blind = crew.find("blind rams", "blind shear rams")
    crew.close(blind)
    crew.wait(120)


def failed_annular(crew):
    if crew.play.policy.first == "pipe rams":
        drilling(crew)
        return
    crew.sign()
    crew.stop()
    crew.shut(crew.find("annular"))
    crew.wait(10)
    ram = crew.find("pipe rams", "variable rams")
    crew.close(ram)
    crew.wait(int(ram.seconds) + 2)
    if crew.setup.at_sea:
        crew.do("hang off")
    crew.read()


def leaking_ram(crew):
    crew.sign()
    crew.stop()
    leaking = dict(crew.play.made.leaks)
    rams = [e for e in reversed(crew.setup.elements) if crew.play.state.verdict(e) == "seals and hangs"]
    bad, good = next(e for e in rams if e.index in leaking), next(e for e in rams if e.index not in leaking)
    crew.shut(bad)
    crew.wait(10)
    crew.close(good)
    crew.wait(int(good.seconds) + 2)
    if crew.setup.at_sea:
        crew.do("hang off")
    crew.read()


def diverter(crew):
    crew.sign()
    crew.do("open overboard")
    crew.do("pump", value=crew.setup.pumps.most_spm)
    crew.close(crew.find("diverter"))
    crew.wait(400)


def gas_above(crew):
    crew.wait(5)
    crew.stop()
    crew.shut(crew.first())
    crew.do("open overboard")
    crew.close(crew.find("diverter"))
    hang(crew)
    crew.wait(30)
    crew.read()


def drift_off(crew):
    yellow, red, _ = crew.play.made.drift
    start = crew.play.made.starts_s
    crew.play.advance(int(start + yellow) + 2)
    crew.do("pump", value=0.0)
    crew.do("pick up")
    crew.until(lambda: crew.play.state.moves.target_md_ft is None)
    ram = crew.find("pipe rams", "variable rams")
    crew.close(ram)
    crew.wait(int(ram.seconds) + 2)
    crew.do("hang off")
    crew.play.advance(int(start + red) + 2)
    shears = next(e for e in crew.setup.elements if e.element == "blind shear rams")
    crew.close(shears)
    crew.wait(int(shears.seconds) + 2)
    crew.do("disconnect")


RIGHT = {
    "drilling": drilling,
    "tripping": tripping,
    "swab": swab,
    "no pipe": no_pipe,
    "collars": collars,
    "casing": casing,
    "unshearable": unshearable,
    "failed annular": failed_annular,
    "leaking ram": leaking_ram,
    "diverter": diverter,
    "gas above": gas_above,
    "drift-off": drift_off,
}


def start_pumps(crew, psi=None):
    """Bring the pumps up to the slow rate with what is read at the stack held."""
    crew.do("hold casing pressure")
    crew.do("pump", value=crew.setup.pumps.slow_spm)
    crew.wait(40)


def circulate(crew, holds, most=90_000):
    for _ in range(most // 60):
        if holds():
            return
        crew.wait(60)
    raise AssertionError("never circulated")


def stop_pumps(crew):
    crew.do("hold casing pressure")
    crew.do("pump", value=0.0)
    crew.wait(40)
    crew.do("choke", value=0.0)
    crew.wait(60)


def drillers_method(crew):
    """First circulation with drill pipe pressure held, the second with kill mud: casing pressure, then drill pipe pressure."""
    play, state = crew.play, crew.play.state
    start_pumps(crew)
    crew.do("hold drill pipe pressure", value=state.now.pipe_psi + 30)
    circulate(crew, lambda: state.column.gas_bbl < 0.05)
    stop_pumps(crew)
    crew.do("line up mud", value=round(kill_ppg(play) + 0.05, 2))
    kill_round(crew)


def kill_round(crew):
    """Kill mud down the string with casing pressure held, then up the annulus with drill pipe pressure held."""
    state = crew.play.state
    begun = state.strokes
    to_bit = state.inside.total_bbl / crew.setup.pumps.bbl_stroke
    start_pumps(crew)
    circulate(crew, lambda: state.strokes - begun > to_bit + 30)
    crew.do("hold drill pipe pressure", value=state.now.pipe_psi + 10)
    around = state.column.way.total_bbl / crew.setup.pumps.bbl_stroke
    circulate(crew, lambda: state.strokes - begun > to_bit + around * 1.1)
    stop_pumps(crew)


def wait_and_weight(crew):
    play, state, pumps = crew.play, crew.play.state, crew.setup.pumps
    kill = round(kill_ppg(play) + 0.05, 2)
    sidpp = state.now.pipe_psi
    crew.do("line up mud", value=kill)
    begun = state.strokes
    to_bit = state.inside.total_bbl / pumps.bbl_stroke
    start_pumps(crew)
    initial = pumps.slow_psi + sidpp
    final = pumps.slow_psi * kill / crew.setup.mud_ppg
    held = max(initial, state.now.pipe_psi) - initial + 30
    for _ in range(1500):
        share = min((state.strokes - begun) / to_bit, 1.0)
        crew.do("hold drill pipe pressure", value=initial + (final - initial) * share + held)
        if share >= 1:
            break
        crew.wait(60)
    around = state.column.way.total_bbl / pumps.bbl_stroke
    circulate(crew, lambda: state.strokes - begun > to_bit + around * 1.15 and state.column.gas_bbl < 0.05)
    stop_pumps(crew)
