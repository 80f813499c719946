"""The command line: serve, demo, dev, evaluate, formula, backup, openapi."""

from __future__ import annotations

import argparse
import json
import os
import sqlite3
import sys
import webbrowser
from pathlib import Path
from typing import Any

from knollstack.catalogue import load
from knollstack.core.base.formula import CallError, Formula, FormulaError, call_named
from knollstack.core.base.glossary import unit_of
from knollstack.core.document.faults import FaultyDesign
from knollstack.core.evaluation.evaluate import evaluate
from knollstack.core.reading.read import parse_text
from knollstack.handbook import registry

FAULTY = 2
DATA = Path(__file__).resolve().parents[2] / "data"
MOST_FILE_BYTES = 8 * 1024 * 1024


def _say(text: str) -> None:
    print(text, file=sys.stderr)


def run_evaluate(arguments: argparse.Namespace) -> int:
    """Print a well file's evaluation as JSON; exit 2 with a line per fault on a bad file."""
    path = Path(arguments.file)
    try:
        if path.stat().st_size > MOST_FILE_BYTES:
            _say(f"{path}: {path.stat().st_size:,} bytes; expected a well file of at most {MOST_FILE_BYTES:,}")
            return FAULTY
        design = parse_text(path.read_bytes())
    except OSError as error:
        _say(f"{path}: {error.strerror}; expected a readable well file")
        return FAULTY
    except FaultyDesign as faulty:
        for fault in faulty.faults:
            _say(f"{path}: {fault.message}")
        return FAULTY
    print(evaluate(design, load()).model_dump_json(indent=1))
    return 0


def _with_units(formula: Formula, result: Any) -> tuple[Any, Any]:
    if isinstance(result, dict):
        return {k: _listed(v) for k, v in result.items()}, {k: unit_of(k) for k in result}
    return _listed(result), formula.unit


def _listed(value: Any) -> Any:
    return value.tolist() if hasattr(value, "tolist") else value


def run_formula(arguments: argparse.Namespace) -> int:
    """Print one formula's result with unit and source as JSON, list all, or check a file of cases."""
    formulas = registry()
    if arguments.list:
        print("\n".join(sorted(formulas)))
        return 0
    if arguments.cases:
        return check_cases(formulas, Path(arguments.cases))
    formula = formulas.get(arguments.name or "")
    if formula is None:
        _say(f"{arguments.name}: no such formula; `formula --list` names all")
        return FAULTY
    try:
        inputs = {}
        for pair in arguments.inputs:
            key, _, text = pair.partition("=")
            inputs[key] = json.loads(text)
        result, unit = _with_units(formula, call_named(formula, inputs))
    except ValueError as error:
        _say(
            str(error)
            if isinstance(error, FormulaError | CallError)
            else f"{pair}: expected key=value with a JSON value"
        )
        return FAULTY
    print(
        json.dumps(
            {"formula": formula.name, "result": result, "unit": unit, "source": formula.source}, ensure_ascii=False
        )
    )
    return 0


def check_cases(formulas: dict[str, Formula], path: Path) -> int:
    """Run a file of reference cases; print each that differs; 1 if any does."""
    try:
        document = json.loads(path.read_text(encoding="utf-8"))
        cases = document["cases"]
        tolerance = float(document.get("tolerance", 1e-4))
    except (OSError, ValueError, KeyError, TypeError) as error:
        _say(f"{path}: {error}; expected a JSON file with a list of cases")
        return FAULTY
    wrong = [line for case in cases for line in case_faults(formulas, case, tolerance)]
    print("\n".join(wrong) if wrong else f"{len(cases)} cases agree")
    return 1 if wrong else 0


def case_faults(formulas: dict[str, Formula], case: dict[str, Any], tolerance: float) -> list[str]:
    """Lines for the results of one case that differ by more than the relative tolerance."""
    formula = formulas.get(case["formula"])
    if formula is None:
        return [f"{case['formula']}: no such formula"]
    try:
        result = call_named(formula, case["inputs"])
    except (FormulaError, CallError) as error:
        return [str(error)]
    expect = case["expect"]
    pairs = [(k, result[k], v) for k, v in expect.items()] if isinstance(expect, dict) else [("result", result, expect)]
    return [
        f"{formula.name} {name}: {float(got):.7g}, expected {want:.7g}"
        for name, got, want in pairs
        if abs(float(got) - want) > tolerance * max(abs(want), 1e-12)
    ]


def run_serve(arguments: argparse.Namespace) -> int:
    """Serve the application; `demo` uses a database of its own with the demo wells; port 0 takes a free one."""
    from waitress.server import create_server

    from knollstack.server.app import create_app
    from knollstack.server.demo import load_demo

    folder = Path(arguments.data)
    folder.mkdir(parents=True, exist_ok=True)
    database = folder / ("demo.sqlite" if arguments.command == "demo" else "knollstack.sqlite")
    app = create_app(database, hosts=set(arguments.host_name))
    if arguments.command == "demo":
        load_demo(database)
    options: Any = {"threads": 8, "clear_untrusted_proxy_headers": True}
    try:
        server: Any = create_server(app, host=arguments.host, port=arguments.port, **options)
    except OSError as error:
        _say(f"{arguments.host}:{arguments.port}: {error.strerror}; expected a free port (--port 0 takes one)")
        return FAULTY
    # a name such as localhost may listen twice, on its IPv4 and its IPv6 address
    listens = getattr(server, "effective_listen", None)
    port = listens[0][1] if listens else server.effective_port
    address = f"http://{arguments.host}:{port}/"
    print(f"Knollstack is at {address} (Ctrl-C stops it). Data: {database}", flush=True)
    if not arguments.no_browser and (os.environ.get("DISPLAY") or sys.platform == "darwin"):
        webbrowser.open(address)
    server.run()
    return 0


def run_dev(arguments: argparse.Namespace) -> int:
    """Serve the demo wells from a database of their own, starting anew whenever the code changes."""
    from knollstack.server.app import create_app
    from knollstack.server.demo import load_demo

    folder = Path(arguments.data)
    folder.mkdir(parents=True, exist_ok=True)
    app = create_app(folder / "dev.sqlite")
    load_demo(folder / "dev.sqlite")
    app.run(host="127.0.0.1", port=arguments.port, use_reloader=True)
    return 0


def run_backup(arguments: argparse.Namespace) -> int:
    """Copy the database to one file, while the server may run."""
    source = Path(arguments.data) / "knollstack.sqlite"
    if not source.is_file():
        _say(f"{source}: no such file; expected the data that `serve` keeps")
        return FAULTY
    with sqlite3.connect(source) as origin, sqlite3.connect(arguments.to) as copy:
        origin.backup(copy)
    print(f"{arguments.to} written")
    return 0


def run_openapi(arguments: argparse.Namespace) -> int:
    """Write the OpenAPI document and the schema of the well file into a folder."""
    from knollstack.server.published import write_published

    write_published(Path(arguments.folder))
    return 0


def _port(text: str) -> int:
    if not text.isdecimal() or int(text) > 65_535:
        raise argparse.ArgumentTypeError(f"{text}; expected a whole number from 0 to 65535")
    return int(text)


def parser() -> argparse.ArgumentParser:
    top = argparse.ArgumentParser(prog="knollstack", description="Casing program design.")
    commands = top.add_subparsers(dest="command", required=True)
    for name, text in (("serve", "serve your own data"), ("demo", "serve the demo wells")):
        command = commands.add_parser(name, help=text)
        command.add_argument("--host", default="127.0.0.1")
        command.add_argument("--port", type=_port, default=8765, help="0 takes a free one and says which")
        command.add_argument("--host-name", action="append", default=[], help="a further host name to answer for")
        command.add_argument("--data", default=str(DATA), help="folder of the database")
        command.add_argument("--no-browser", action="store_true")
        command.set_defaults(run=run_serve)
    command = commands.add_parser("dev", help="serve the demo wells, with reload")
    command.add_argument("--port", type=_port, default=8765)
    command.add_argument("--data", default=str(DATA), help="folder of the database")
    command.set_defaults(run=run_dev)
    command = commands.add_parser("evaluate", help="print a well file's evaluation as JSON")
    command.add_argument("file")
    command.set_defaults(run=run_evaluate)
    command = commands.add_parser("formula", help="work one formula, or check a file of cases")
    command.add_argument("name", nargs="?")
    command.add_argument("inputs", nargs="*", metavar="key=value")
    command.add_argument("--list", action="store_true")
    command.add_argument("--cases")
    command.set_defaults(run=run_formula)
    command = commands.add_parser("backup", help="copy your data to one file")
    command.add_argument("to")
    command.add_argument("--data", default=str(DATA))
    command.set_defaults(run=run_backup)
    command = commands.add_parser("openapi", help="write docs/openapi.json and docs/well.schema.json")
    command.add_argument("--folder", default="docs")
    command.set_defaults(run=run_openapi)
    return top


def main(argv: list[str] | None = None) -> int:
    arguments = parser().parse_args(argv)
    result: int = arguments.run(arguments)
    return result
