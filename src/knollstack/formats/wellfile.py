"""The well file: a design document as JSON text, written the same way every time."""

import json

from knollstack.core.document.design import Design


def write(design: Design) -> str:
    """A design as the text of a well file."""
    return json.dumps(design.model_dump(mode="json"), ensure_ascii=False, indent=1) + "\n"


def schema() -> dict[str, object]:
    """JSON Schema of the well file."""
    return Design.model_json_schema()
