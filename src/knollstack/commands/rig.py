"""`rig`: a simulated rig that plays a well file over WITS level 0, for those who bring no feed of their own yet."""

from __future__ import annotations

import argparse
from pathlib import Path

from knollstack.catalogue import load
from knollstack.commands.say import FAULTY, say
from knollstack.core.document.faults import FaultyDesign
from knollstack.core.reading.read import parse_text
from knollstack.rig.simulated.playing import Playing
from knollstack.rig.simulated.rig import SimulatedRig
from knollstack.rig.simulated.timeline import timeline_of


def run_rig(arguments: argparse.Namespace) -> int:
    """Play a design until it is over, or Ctrl-C."""
    try:
        design = parse_text(Path(arguments.file).read_bytes())
    except OSError as error:
        say(f"{arguments.file}: {error.strerror}; expected a well file")
        return FAULTY
    except FaultyDesign as error:
        say(str(error))
        return FAULTY
    timeline = timeline_of(design, load())
    if not timeline.phases:
        say(
            f"{arguments.file}: no string to drill for; expected a design with setting depths, or a ground that gives some"
        )
        return FAULTY
    rig = SimulatedRig(timeline, tuple(arguments.trouble), arguments.seed, arguments.start)
    try:
        playing = Playing(rig, arguments.speed, arguments.port, arguments.host)
    except OSError as error:
        say(f"{arguments.host}:{arguments.port}: {error.strerror}; expected a free port (--port 0 takes one)")
        return FAULTY
    print(
        f"The simulated rig of {timeline.well} waits at {arguments.host}:{playing.port}, WITS level 0, "
        f"{playing.speed:g} times as fast (Ctrl-C stops it).",
        flush=True,
    )
    playing.start()
    try:
        while playing.is_alive() and not playing.over:
            playing.join(0.5)
    except KeyboardInterrupt:
        return 0
    finally:
        playing.stop()
    print(f"{timeline.well} is drilled and cased.", flush=True)
    return 0
