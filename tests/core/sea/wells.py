"""The demo well at sea, with parts of it changed."""

import copy
import json

from knollstack.demo import documents
from tests.helpers import put

DEEP = json.loads(documents()[3])


def deep(**values):
    """The deep well; keys are places with two underscores for a slash."""
    document = copy.deepcopy(DEEP)
    for key, value in values.items():
        put(document, key.split("__"), value)
    return document
