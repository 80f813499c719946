"""The whole registry of formulas, with every core module loaded: for the terminal and the handbook page."""

from __future__ import annotations

import importlib
import pkgutil
from functools import lru_cache

import knollstack.core
from knollstack.core.base.formula import REGISTRY, Formula


@lru_cache(maxsize=1)
def registry() -> dict[str, Formula]:
    """Every formula by name."""
    for module in pkgutil.walk_packages(knollstack.core.__path__, "knollstack.core."):
        importlib.import_module(module.name)
    return REGISTRY
