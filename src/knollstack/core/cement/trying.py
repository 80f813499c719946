"""Changes of a string's cement tried on the job: the string laid anew with them, and every moment of it judged."""

from __future__ import annotations

from dataclasses import replace

from knollstack.core.base.findings import Remedy
from knollstack.core.base.remember import remembered
from knollstack.core.cement.conduit import Bores
from knollstack.core.cement.job import Verdict, verdict
from knollstack.core.cement.lay import cemented
from knollstack.core.document.cementing import Cement
from knollstack.core.ground.well import Well
from knollstack.core.program.equipped import EquippedString, with_sections


def changed(well: Well, string: EquippedString, remedy: Remedy) -> EquippedString:
    """The string with a remedy's changes of its cement; other changes are left out."""
    begin = f"{string.path}/cement/"
    values = {c.path.removeprefix(begin): c.value for c in remedy.changes if c.path.startswith(begin)}
    cement = Cement.model_validate(string.own.cement.model_dump() | values)
    laid, _ = cemented(well, replace(string.laid, own=string.own.model_copy(update={"cement": cement})))
    return with_sections(laid, string.sections)


@remembered(256)
def tried(well: Well, string: EquippedString, bores: Bores, offered: Remedy) -> Verdict:
    """Every moment of the job as it then is; a job that cannot be followed forbids nothing."""
    return verdict(well, changed(well, string, offered), bores)
