"""Logs for tests: entries numbered in the order given."""

from knollstack.core.logbook.drilled import as_drilled
from knollstack.core.reading.read import parse
from tests.helpers import demo


def logged(*entries, document=None):
    """The demo well's document with a log."""
    document = document or demo()
    rows = [{"number": n, "author": "A. Hand", **entry} for n, entry in enumerate(entries, start=1)]
    return document | {"log": rows}


def entry(kind, day, **values):
    """On a day of March 2027, at six."""
    return {"kind": kind, "at": f"2027-03-{day:02d} 06:00", **values}


def drilled(*entries, document=None):
    return as_drilled(parse(logged(*entries, document=document)))


def facts(made):
    return {fact.path: fact.value for fact in made.facts}


def told_of(evaluation, severity):
    """Findings of the logbook."""
    return [f for f in evaluation.findings if (f.step, f.severity) == ("logbook", severity)]


SPUD = entry("spud", 8)
SURFACE = entry("shoe landed", 10, string="s2", md_ft=1985.0)
