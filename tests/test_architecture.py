"""The rules of the house: imports point one way, the core stays pure, published files are up to date."""

import ast
import re
from pathlib import Path

from knollstack.core.evaluation.steps import STEPS
from knollstack.server.published import published

ROOT = Path(__file__).resolve().parents[1]
PACKAGE = ROOT / "src" / "knollstack"
MAY_IMPORT = {
    "core": {"core"},
    "catalogue": {"core"},
    "demo": set(),
    "store": {"core", "store"},
    "formats": {"core", "formats", "catalogue"},
    "rig": {"core", "catalogue", "rig"},
    "server": {"core", "catalogue", "store", "formats", "rig", "demo", "handbook", "server"},
}
ROOMS = (
    "base",
    "document",
    "catalogue",
    "path",
    "ground",
    "program",
    "depths",
    "sizes",
    "mud",
    "pipe",
    "running",
    "cement",
    "wellhead",
    "preventers",
    "sea",
    "completion",
    "runsheet",
    "proposal",
    "reading",
    "logbook",
    "drills",
    "evaluation",
)
"""The rooms of the core, lowest first: each imports only from those before it."""
STEP_FILES = {"__init__", "judge", "results", "findings", "formulas"}
OUTSIDE_CORE = {
    "flask",
    "flask_openapi3",
    "sqlite3",
    "waitress",
    "os",
    "pathlib",
    "io",
    "time",
    "datetime",
    "csv",
    "random",
}


def imports(path):
    for node in ast.walk(ast.parse(path.read_text())):
        if isinstance(node, ast.Import):
            yield from (alias.name for alias in node.names)
        elif isinstance(node, ast.ImportFrom) and node.module:
            yield node.module


def test_imports_point_one_way():
    seen = 0
    for path in PACKAGE.rglob("*.py"):
        room = path.relative_to(PACKAGE).parts[0]
        for name in imports(path):
            parts = name.split(".")
            if parts[0] == "knollstack" and len(parts) > 1 and room in MAY_IMPORT:
                seen += 1
                assert parts[1] in MAY_IMPORT[room], f"{path.name} imports {name}"
    assert seen > 100


def test_rooms_of_the_core_stand_in_order():
    core, seen = PACKAGE / "core", 0
    assert {p.name for p in core.iterdir() if p.is_dir() and p.name != "__pycache__"} == set(ROOMS)
    for path in core.rglob("*.py"):
        parts = path.relative_to(core).parts
        if len(parts) == 1:
            continue
        below = ROOMS[: ROOMS.index(parts[0]) + 1]
        for name in imports(path):
            if name.startswith("knollstack.core."):
                seen += 1
                assert name.split(".")[2] in below, f"{'/'.join(parts)} imports {name}"
    assert seen > 300
    assert {path.name for path in (ROOT / "tests" / "core").iterdir() if path.is_dir()} - {"__pycache__"} <= set(ROOMS)


def test_every_step_has_its_room_with_the_same_names_in_it():
    for entry in STEPS:
        room = PACKAGE / "core" / entry.step
        held = {path.stem for path in room.glob("*.py")}
        # sizes come from the catalogue alone: no equation of its own; findings on the ground stand with its judge
        assert STEP_FILES - held <= {
            "formulas" if entry.step == "sizes" else "",
            "findings" if entry.step == "ground" else "",
        }


def test_core_reaches_nothing_outside():
    for path in (PACKAGE / "core").rglob("*.py"):
        reached = OUTSIDE_CORE & {name.split(".")[0] for name in imports(path)}
        if path.name == "dates.py":  # arithmetic of the calendar, and no clock
            assert not re.search(r"\b(today|now|time)\b\(", path.read_text())
            reached -= {"datetime"}
        assert not reached, path.name
        assert not re.search(r"(?<!\w)open\(", path.read_text()), path.name


def test_sql_lives_in_the_store():
    for path in PACKAGE.rglob("*.py"):
        if "store" not in path.parts and re.search(r'"\s*(SELECT|INSERT|UPDATE|DELETE)\b', path.read_text()):
            raise AssertionError(f"{path.name} holds SQL")


def test_published_files_are_up_to_date():
    for name, text in published().items():
        assert (ROOT / "docs" / name).read_text(encoding="utf-8") == text, f"run ./knollstack openapi: {name} lags"


def test_docs_name_every_step_and_key():
    guide = (ROOT / "docs" / "format.md").read_text(encoding="utf-8")
    for key in ("site", "trajectory", "ground", "policy", "strings", "wellhead", "preventers"):
        assert f"`{key}`" in guide
    house = (ROOT / "docs" / "architecture.md").read_text(encoding="utf-8")
    for entry in STEPS:
        assert entry.step in house
    for room in ROOMS:
        assert f"{room}/" in house
    readme = (ROOT / "README.md").read_text(encoding="utf-8")
    for picture in (ROOT / "docs" / "screenshots").glob("*.png"):
        assert picture.name in readme
