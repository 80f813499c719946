"""Every remedy that a finding offers is applied as the browser does: it clears its finding and brings no worse one."""

import json

from knollstack.core.base.findings import SEVERITIES
from knollstack.core.base.units import plain
from knollstack.core.evaluation.steps import WORDS
from knollstack.demo import documents
from tests.core.evaluation.test_judging import strings
from tests.helpers import CATALOGUE, applied, elements, find, many, points, put, run

PIECE = {"name": "Head", "height_in": 22.0, "bore_in": 13.625, "top_psi": 1000.0}
ANNULAR = elements("annular")


FIVE = ("pipe rams", "drilling spool", "blind shear rams", "variable rams", "annular")


def pieces(*changed):
    """Head, spool and tubing spool on the three casings, each with some values changed."""
    rows = [(13.625, 2000.0, 22.0), (11.0, 5000.0, 24.0), (7.0625, 5000.0, 24.0)]
    return [
        {
            "id": f"w{n}",
            "name": f"P{n}",
            "height_in": high,
            "bore_in": bore,
            "top_psi": psi,
            "string": f"s{n + 2}",
            **own,
        }
        for n, ((bore, psi, high), own) in enumerate(zip(rows, changed, strict=True))
    ]


def stack_on(string, *names, **more):
    psi = 5000.0 if string == "s3" else 2000.0
    return strings(preventers=[{"id": "b1", "string": string, "class_psi": psi, "elements": elements(*names), **more}])


def weak_element():
    document = stack_on("s3", *FIVE, casing_ram="e4")
    document["preventers"][0]["elements"][0]["class_psi"] = 3000.0
    return document


def blocks_of_other_pipe():
    """Rams for 3 1/2 in where 5 in is drilled with."""
    document = stack_on("s3", *FIVE, casing_ram="e4")
    rows = document["preventers"][0]["elements"]
    rows[0] |= {"size_in": 3.5}
    rows[3] |= {"from_in": 2.375, "to_in": 3.5}
    return document


def line_at_nothing():
    return stack_on(
        "s3",
        "pipe rams",
        "drilling spool",
        "blind shear rams",
        "variable rams",
        "annular",
        choke="gone",
        casing_ram="e4",
    )


FAULTY = {
    "kick": (
        strings(policy__depths__kick_minimums=[{"from_hole_in": 1.0, "volume_bbl": 120.0}], strings__1__mud_ppg=9.3),
        "depths",
    ),
    "fresh water": (
        strings(ground__zones=[{"name": "W", "top_tvd_ft": 200.0, "base_tvd_ft": 2500.0, "fluid": "fresh water"}]),
        "depths",
    ),
    "no shoe": (
        strings(ground__zones=[{"name": "N", "top_tvd_ft": 5900.0, "base_tvd_ft": 6200.0, "shoe_allowed": False}]),
        "depths",
    ),
    "left open": (
        strings(ground__zones=[{"name": "C", "top_tvd_ft": 6500.0, "base_tvd_ft": 7000.0, "case_before_deeper": True}]),
        "depths",
    ),
    "short of total depth": (strings(strings__3__shoe_md_ft=9900.0), "depths"),
    "light mud": (strings(strings__3__mud_ppg=9.0), "mud"),
    "heavy mud": (strings(strings__3__mud_ppg=15.9), "mud"),
    "bit too large": (strings(strings__3__bit_in=8.75), "sizes"),
    "no clearance": (strings(strings__3__od_in=7.625), "sizes"),
    "weak pipe": (strings(strings__1__pipe={"weight_ppf": 48.0, "grade": "H40", "connection": "STC"}), "pipe"),
    "cement breaks rock": (strings(ground__fracture=points((30, 13), (10_000, 13))), "cement"),
    "no bond": (strings(strings__2__cement__top_md_ft=3000.0), "cement"),
    "surface not cemented": (strings(strings__1__cement={"top_md_ft": 500.0}), "cement"),
    "shallow cellar": (strings(site__cellar_depth_ft=5.0), "wellhead"),
    "weak head": (strings(wellhead={"pieces": [PIECE]}), "wellhead"),
    "liner hung low": (strings(strings__3__run="liner", strings__3__hanger_md_ft=6100.0), "pipe"),
    "conductor shallow": (strings(strings__0__shoe_md_ft=60.0), "depths"),
    "piece on a lost string": (
        strings(
            site__cellar_depth_ft=10.0, wellhead={"pieces": [PIECE | {"id": "w1", "string": "lost", "top_psi": 5000.0}]}
        ),
        "wellhead",
    ),
    "stack on a lost string": (
        strings(preventers=[{"string": "lost", "class_psi": 3000.0, "elements": ANNULAR}]),
        "preventers",
    ),
    "faces that do not mate": (
        strings(
            site__cellar_depth_ft=10.0,
            wellhead={"pieces": pieces({}, {"bottom_bore_in": 11.0, "bottom_psi": 3000.0}, {})},
        ),
        "wellhead",
    ),
    "no such class": (
        strings(site__cellar_depth_ft=10.0, wellhead={"pieces": pieces({"top_psi": 2500.0}, {}, {})}),
        "wellhead",
    ),
    "bowl elsewhere": (strings(site__cellar_depth_ft=10.0, strings__2__running={"hanger": "mandrel"}), "wellhead"),
    "long conductor": (
        strings(
            site__setting="platform",
            site__water_depth_ft=60.0,
            wellhead={"deck_md_ft": 20.0, "free_conductor_ft": 400.0},
        ),
        "wellhead",
    ),
    "low on the deck": (
        strings(
            site__setting="platform", wellhead={"deck_md_ft": 20.0, "free_conductor_ft": 9.0, "reference_in": 40.0}
        ),
        "wellhead",
    ),
    "no ram for pipe": (stack_on("s3", "drilling spool", "blind rams", "annular"), "preventers"),
    "no ram for casing": (stack_on("s3", *FIVE), "preventers"),
    "no blind ram": (stack_on("s2", "drilling spool", "pipe rams", "annular"), "preventers"),
    "blocks of other pipe": (blocks_of_other_pipe(), "preventers"),
    "weak element": (weak_element(), "preventers"),
    "line at nothing": (line_at_nothing(), "preventers"),
    "outlets on top": (
        stack_on("s3", "pipe rams", "blind rams", "variable rams", "drilling spool", "annular"),
        "preventers",
    ),
    "does not shear": (strings(closing_unit={"operating_psi": 2500.0}), "preventers"),
    "few bottles": (strings(closing_unit={"operating_psi": 5000.0, "bottles": 2}), "preventers"),
    "no precharge": (strings(closing_unit={"operating_psi": 5000.0, "precharge_psi": 0.0}), "preventers"),
    "weak stack": (strings(preventers=[{"string": "s3", "class_psi": 3000.0, "elements": ANNULAR}]), "preventers"),
}


def edited(text, path, value):
    document = json.loads(text)
    put(document, path.split("/"), value)
    return document


def smaller(od_in):
    return max(row.od_in for row in CATALOGUE.sizes if row.od_in < od_in - 1.5)


def wells():
    """The faulty wells above, and the demo wells with one thing wrong."""
    yield from ((name, document) for name, (document, _) in FAULTY.items())
    for k, text in enumerate(documents()[1:]):
        held = json.loads(text)
        for i, string in enumerate(held["strings"][:-1]):
            for moved in (-700.0, 400.0) if i else (400.0,):
                path = f"strings/{i}/shoe_md_ft"
                if i == 0 or string["shoe_md_ft"] + moved > held["strings"][i - 1]["shoe_md_ft"]:
                    yield f"{held['name']}: shoe {i} {moved:+g}", edited(text, path, string["shoe_md_ft"] + moved)
            if i == (k + 2) % 3:
                yield f"{held['name']}: worn {i}", edited(text, f"strings/{i}/wear_percent", 45.0)
                yield f"{held['name']}: sized {i}", edited(text, f"strings/{i}/od_in", smaller(string["od_in"]))
    yield f"{held['name']}: class", edited(text, "policy/preventers/minimum_class_psi", 10_000.0)


def kind(finding, remedy):
    """What is said and what is offered, without the amounts."""
    words = [w for part in (*finding.message, "|", *remedy.label) if isinstance(part, str) for w in part.split()]
    return finding.step, " ".join(w for w in words if not any(c.isdigit() for c in w))[:60]


def brought(before, after, finding):
    """What was not there: findings of the same step or an earlier one as bad or worse, and worse ones of any step.

    As bad a one of a later step may come, since that step is worked on what this one decides.
    """
    known = {(f.severity, f.step, f.place) for f in before.findings}
    earlier = WORDS[: WORDS.index(finding.step) + 1]
    worse = SEVERITIES[: SEVERITIES.index(finding.severity)]
    worst = (*worse, finding.severity)
    return [
        plain(f.message)
        for f in after.findings
        if f.severity in (worst if f.step in earlier else worse) and (f.severity, f.step, f.place) not in known
    ]


def test_every_remedy_clears_its_finding_and_brings_no_worse_one():
    tried = {}
    for name, document in wells():
        before = run(document)
        if name in FAULTY:
            faults = [f for f in find(before, FAULTY[name][1]) if f.severity in ("stop", "caution")]
            assert [f for f in faults if f.remedies], f"nothing is found, or without a remedy: {name}"
        for finding in before.findings:
            for remedy in finding.remedies:
                seen = tried.setdefault(kind(finding, remedy), [])
                if len(seen) >= many(1):
                    continue
                offered = plain(remedy.label)
                seen.append(offered)
                after = run(applied(document, remedy.changes))
                head = plain(finding.message).split()[:3]
                left = [
                    f
                    for f in after.findings
                    if (f.severity, f.step, f.place) == (finding.severity, finding.step, finding.place)
                ]
                assert head not in [plain(f.message).split()[:3] for f in left], (name, plain(finding.message), offered)
                assert brought(before, after, finding) == [], (name, plain(finding.message), offered)
    offers = {" ".join(offered.split()[:2]) for seen in tried.values() for offered in seen}
    assert {w for w in OFFERED if not any(o.startswith(w) for o in offers)} == set(), (
        "remedies that no well here is offered"
    )


# how every remedy in the core begins
OFFERED = {
    "Move the",
    "Set it",
    "Set the",
    "Hang the",
    "Drill with",
    "Use class",
    "Use",
    "Run",
    "Dig the",
    "Remove it",
    "Let it",
    "Make its",
    "Raise it",
    "Hold it",
    "Land it",
    "Change the",
    "Fit",
    "Add",
    "Make it",
    "Stand it",
}
