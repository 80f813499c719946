"""The rules of the house: imports point one way, the core stays pure, published files are up to date."""

import ast
import re
from pathlib import Path

from knollstack.core.base.findings import STEPS
from knollstack.server.published import published

ROOT = Path(__file__).resolve().parents[1]
PACKAGE = ROOT / "src" / "knollstack"
MAY_IMPORT = {
    "core": {"core"},
    "catalogue": {"core"},
    "demo": set(),
    "store": {"core", "store"},
    "formats": {"core", "formats", "catalogue"},
    "server": {"core", "catalogue", "store", "formats", "demo", "handbook", "server"},
}
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


def test_core_reaches_nothing_outside():
    for path in (PACKAGE / "core").rglob("*.py"):
        assert not OUTSIDE_CORE & {name.split(".")[0] for name in imports(path)}, path.name
        assert "open(" not in path.read_text(), path.name


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
    for word in STEPS:
        assert word in house
    readme = (ROOT / "README.md").read_text(encoding="utf-8")
    for picture in (ROOT / "docs" / "screenshots").glob("*.png"):
        assert picture.name in readme
