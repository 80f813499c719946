"""A scene's own file: the scene and the design it is played on, so that it can be shared and played anywhere alike."""

from __future__ import annotations

import json
from typing import Any

from pydantic import ValidationError

from knollstack.core.document.faults import Fault, FaultyDesign
from knollstack.core.drills.scene import Scene

FORMAT, VERSION = "knollstack.scene", 1


def write_scene(scene: Scene, document: Any) -> str:
    held = {"format": FORMAT, "version": VERSION, "scene": scene.model_dump(mode="json"), "document": document}
    return json.dumps(held, ensure_ascii=False, indent=1) + "\n"


def read_scene(data: bytes) -> tuple[Scene, Any]:
    """The scene and its document, that one unread; raises FaultyDesign with what is wrong."""
    try:
        held = json.loads(data.decode("utf-8-sig"))
    except (UnicodeDecodeError, ValueError, RecursionError) as error:
        raise _fault("", "no JSON", "a scene file") from error
    if not isinstance(held, dict) or held.get("format") != FORMAT:
        raise _fault("/format", _shown(held), f'"{FORMAT}"')
    if held.get("version") != VERSION:
        raise _fault("/version", _value(held.get("version")), f"{VERSION}, the version that is read here")
    try:
        scene = Scene.model_validate(held.get("scene"))
    except ValidationError as error:
        raise FaultyDesign(
            [
                Fault(path="/scene/" + "/".join(map(str, e["loc"])), value=_value(e.get("input")), expected=e["msg"])
                for e in error.errors()
            ]
        ) from error
    return scene, held.get("document")


def _fault(path: str, value: str, expected: str) -> FaultyDesign:
    return FaultyDesign([Fault(path=path, value=value, expected=expected)])


def _shown(held: object) -> str:
    return _value(held.get("format")) if isinstance(held, dict) else "no object"


def _value(value: object) -> str:
    return "nothing" if value is None else json.dumps(value, ensure_ascii=False, default=str)[:80]
