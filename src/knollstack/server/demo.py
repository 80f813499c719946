"""Putting the demo wells into a new demo database."""

from pathlib import Path

from knollstack.core.reading.read import parse_text
from knollstack.demo import documents
from knollstack.formats import wellfile
from knollstack.server.database import now
from knollstack.store.database import connect
from knollstack.store.wells import create_well, has_wells


def load_demo(database: Path) -> None:
    """Add the demo wells where the database holds none; a person's changes to them are kept."""
    connection = connect(database)
    try:
        if has_wells(connection):
            return
        for text in documents():
            design = parse_text(text)
            create_well(connection, design.name, wellfile.write(design), "demo", now())
    finally:
        connection.close()
