"""`evaluate`: a well file worked at the terminal; `openapi`: the published descriptions written."""

from __future__ import annotations

import argparse
from pathlib import Path

from knollstack.catalogue import load
from knollstack.commands.say import FAULTY, say
from knollstack.core.document.faults import FaultyDesign
from knollstack.core.evaluation.evaluate import evaluate
from knollstack.core.reading.read import parse_text

MOST_FILE_BYTES = 8 * 1024 * 1024


def run_evaluate(arguments: argparse.Namespace) -> int:
    """Print a well file's evaluation as JSON; exit 2 with a line per fault on a bad file."""
    path = Path(arguments.file)
    try:
        if path.stat().st_size > MOST_FILE_BYTES:
            say(f"{path}: {path.stat().st_size:,} bytes; expected a well file of at most {MOST_FILE_BYTES:,}")
            return FAULTY
        design = parse_text(path.read_bytes())
    except OSError as error:
        say(f"{path}: {error.strerror}; expected a readable well file")
        return FAULTY
    except FaultyDesign as faulty:
        for fault in faulty.faults:
            say(f"{path}: {fault.message}")
        return FAULTY
    print(evaluate(design, load()).model_dump_json(indent=1))
    return 0


def run_openapi(arguments: argparse.Namespace) -> int:
    """Write the OpenAPI document and the schema of the well file into a folder."""
    from knollstack.server.published import write_published

    write_published(Path(arguments.folder))
    return 0
