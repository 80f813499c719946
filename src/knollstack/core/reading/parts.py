"""Parts of a document that came before are the same objects again.

While a shoe is dragged the ground, the path and the other strings of each document are those of the last one. Reading
them into the very objects made before saves their checks, and lets everything that follows from them alone be kept
by identity.
"""

from __future__ import annotations

import marshal
from collections import OrderedDict
from threading import Lock
from typing import Any

from pydantic import BaseModel, ValidationError

from knollstack.core.document.design import GroundModel, Site, Trajectory
from knollstack.core.document.policy import Policy
from knollstack.core.document.strings import String

MOST_KEPT = 256
_PARTS: dict[str, type[BaseModel]] = {"site": Site, "trajectory": Trajectory, "ground": GroundModel}
_POLICY: dict[str, type[BaseModel]] = {name: type(field.get_default()) for name, field in Policy.model_fields.items()}
_kept: OrderedDict[tuple[type[BaseModel], bytes], BaseModel] = OrderedDict()
_lock = Lock()


def _same(kind: type[BaseModel], value: Any) -> Any:
    """The object that was read from an equal value before, else a new one; what cannot be read is left as it came."""
    if not isinstance(value, dict):
        return value
    try:
        # tells true from 1 and 1 from 1.0, as the models do
        key = (kind, marshal.dumps(value, 2))
    except (ValueError, RecursionError):
        return value
    with _lock:
        if key in _kept:
            _kept.move_to_end(key)
            return _kept[key]
    try:
        made = kind.model_validate(value)
    except ValidationError:
        return value  # the whole document is checked next, which tells the fault at its place
    with _lock:
        _kept[key] = made
        if len(_kept) > MOST_KEPT:
            _kept.popitem(last=False)
    return made


def shared(document: dict[str, Any]) -> dict[str, Any]:
    """The document with each part that can be read by itself as its object, the same one for the same content."""
    found = {**document, **{key: _same(kind, document[key]) for key, kind in _PARTS.items() if key in document}}
    policy = found.get("policy")
    if isinstance(policy, dict):
        kinds = {key: _same(kind, policy[key]) for key, kind in _POLICY.items() if key in policy}
        found["policy"] = {**policy, **kinds}
    strings = found.get("strings")
    if isinstance(strings, list):
        found["strings"] = [_same(String, row) for row in strings]
    return found
