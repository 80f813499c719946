"""The land demo's hours, worked with a calculator from policy, the well's depths, and what running and cementing tell.

A stand is 3 × 31.5 = 94.5 ft: 3.5 min in cased hole, 5 min in open hole; 8 min a connection. A bottom-hole assembly takes 4 h.
Running: 13 3/8 in by the crew, 50 joints at 12 an hour; 9 5/8 and 7 in by their fills and speed, 18.596 h and 21.270 h.
Cementing, followed in time: 143.76, 186.37 and 195.04 min. Shoe tracks of 84.357 ft.
"""

CASED, OPEN, CONNECTION = 3.5 / 60 / 94.5, 5 / 60 / 94.5, 8 / 60 / 94.5
BESIDE = {"site/cellar", "site/conductor", *(f"s{n}/{word}" for n in (2, 3, 4) for word in ("tally", "lines", "clear"))}

SITE = {"cellar": 72, "conductor": 24, "rig": 96, "flange": 4, "diverter": 8, "diverter-test": 1.5}

SURFACE = {
    "bha": 4 + 130 * CASED,
    "tally": (50 + 2) / 25,
    "drill/0": 1870 / 60 + 1870 * CONNECTION,
    "pull-out": 130 * CASED + 1870 * OPEN + 4,
    "pipe/1": 50 / 12,
    "displace/1": 143.76 / 60,
    "off": 6,
    "cut-conductor": 2,
    "rough-cut": 1,
    "head": 8,
    "prove/1": 1,
    **{f"test/{word}": 0.75 for word in ("e2", "e3", "e4", "choke", "kill")},
}

# bits of 50 h at 45 ft/h are spent after 2,250 ft: at 4,265 and 6,515 ft
INTERMEDIATE = {
    "bha": 4 + 2000 * CASED,
    "drill/0": 2250 / 45 + 2250 * CONNECTION,
    "trip/1": 2 * (2000 * CASED + 2265 * OPEN) + 4,
    "drill/1": 2250 / 45 + 2250 * CONNECTION,
    "trip/2": 2 * (2000 * CASED + 4515 * OPEN) + 4,
    "drill/2": 485 / 45 + 485 * CONNECTION,
    "pull-out": 2000 * CASED + 5000 * OPEN + 4,
    "evaluate/y2": 5000 / 1500 + 2 * 7000 / 6000,
    "wiper": 2 * (2000 * CASED + 5000 * OPEN) + 2,
    "tally": (173 + 6) / 25,
    "pipe/1": 18.596,
    "displace/1": 186.37 / 60,
}

# bits of 45 h at 30 ft/h are spent after 1,350 ft; at the third the BOPs are due before the next
PRODUCTION = {
    "bha": 4 + 7000 * CASED,
    "drill/0": 1350 / 30 + 1350 * CONNECTION,
    "trip/1": 2 * (7000 * CASED + 1365 * OPEN) + 4,
    "drill/1": 1350 / 30 + 1350 * CONNECTION,
    "trip/2": 2 * (7000 * CASED + 2715 * OPEN) + 4,
    "drill/2": 1350 / 30 + 1350 * CONNECTION,
    "due1/out": 7000 * CASED + 4065 * OPEN,
    "due1/bushing-out": 0.75,
    "due1/plug": 0.75,
    "due1/test": 6 * 0.75,
    "due1/plug-out": 0.75,
    "due1/bushing-in": 0.75 + 7000 * CASED + 4065 * OPEN,
    "drill/3": 695 / 30 + 695 * CONNECTION,
    "core/y5": 60 / 15 + 2 * 11_820 / 1000,
    "drill/4": 780 / 30 + 780 * CONNECTION,
    "pull-out": 7000 * CASED + 5600 * OPEN + 4,
    "evaluate/y6": 12,
    "wiper": 2 * (7000 * CASED + 5600 * OPEN) + 2,
    "tally": (311 + 10) / 25,
    "pipe/1": 21.270,
    "displace/1": 195.04 / 60,
}

CASING = {"condition": 4, "gear": 3, "lines": 2, "circulate": 2, "clear": 5, "wait": 9, "final-cut": 2}
UP = {"nipple-up": 12, "plug": 0.75, "function": 1.5, "plug-out": 0.75, "cup": 2 * 0.75, "bushing-in": 0.75}
AHEAD = {"casing-test": 1, "drill-out": 84.357 / 25, "new-hole": 15 / 25, "leak-off": 2, "mud": 2}
SPOOL = {"bushing-out": 0.75, "rams": 2, "bonnets": 0.75, "lift": 6 / 2, "slips": 4 / 2, "rough-cut": 6 / 2 + 4 / 2,
         "spool": 3, "prove/1": 1, "prove/2": 1,
         **{f"test/{word}": 0.75 for word in ("e1", "e3", "e4", "e5", "choke", "kill")}}  # fmt: skip

END = {
    "casing-test": 1,
    "clean": 18 + 2 * 12_515.64 * CASED,
    "fluid": 2,
    "bond": 2 * 12_600 / 6000,
    "bushing-out": 0.75,
    "packer": 11_650 * CASED,
    "tubing": 374 / 18,
    "space-out": 6,
    "land": 6,
    "bpv": 0.75,
    "off": 6,
    "tree": 36 - 6 * 1 - 6 - 2 * 0.75,
    "tree-joint": 1,
    **{f"tree-valve/{n}": 1 for n in range(1, 6)},
    "bpv-out": 0.75,
    "guns-through": 10,
}

HOURS = {
    f"{head}/{key}": hours
    for head, rows in (
        ("site", SITE),
        ("s2", SURFACE | CASING | UP),
        ("s3", INTERMEDIATE | CASING | UP | AHEAD | SPOOL),
        ("s4", PRODUCTION | CASING | UP | AHEAD | SPOOL),
        ("end", END),
    )
    for key, hours in rows.items()
}

# least and most of each kind over what is likely
SPREAD = {
    "preparation": (0.9, 1.5), "drilling": (0.75, 1.7), "tripping": (0.9, 1.4), "evaluation": (0.9, 1.6),
    "running casing": (0.9, 1.5), "cementing": (0.9, 1.4), "waiting on cement": (1.0, 1.3), "wellhead": (0.85, 1.5),
    "BOPs": (0.85, 1.5), "testing": (0.85, 1.6), "barriers": (1.0, 1.0), "riser": (0.85, 1.6), "completion": (0.85, 1.6),
    "plugs": (0.9, 1.5),
}  # fmt: skip
