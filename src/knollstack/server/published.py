"""The published descriptions: OpenAPI of the server, JSON Schema of the well file."""

import json
import tempfile
from pathlib import Path

from knollstack.formats import wellfile
from knollstack.server.app import create_app


def published() -> dict[str, str]:
    """Name and text of each published file."""
    with tempfile.TemporaryDirectory() as folder:
        app = create_app(Path(folder) / "empty.sqlite")
        openapi = app.test_client().get("/api/openapi.json").get_json()
    return {
        "openapi.json": json.dumps(openapi, indent=1, ensure_ascii=False, sort_keys=True) + "\n",
        "well.schema.json": json.dumps(wellfile.schema(), indent=1, ensure_ascii=False) + "\n",
    }


def write_published(folder: Path) -> None:
    folder.mkdir(parents=True, exist_ok=True)
    for name, text in published().items():
        (folder / name).write_text(text, encoding="utf-8")
