"""A save as the server does it."""

from knollstack.store.revisions import save_revision
from knollstack.store.wells import find_design

NOW = "2026-01-01T00:00:00+00:00"


def save(connection, design, based_on, document, name="W", author="me"):
    well = find_design(connection, design).well_id
    return save_revision(connection, well, design, based_on, name, document, author, "2026-01-02T00:00:00+00:00")
