"""What a worker process does: from a document to an answer's text. No request, no database.

A task takes plain values and returns the text of an answer, or None where there is none. Its name is the operation's.
"""

from __future__ import annotations

import json
import time
from typing import Any

from knollstack.catalogue import load
from knollstack.core.base.units import UnitSet
from knollstack.core.base.working import shown_all
from knollstack.core.cement.detail import job_detail_of
from knollstack.core.depths.kick import kick_drawing
from knollstack.core.document.compare import differences
from knollstack.core.document.design import Design, Trajectory
from knollstack.core.document.faults import Fault, FaultyDesign
from knollstack.core.evaluation.evaluate import evaluate, of_log, with_sheet, workings
from knollstack.core.evaluation.side_by_side import side_by_side
from knollstack.core.evaluation.summary import summary_of
from knollstack.core.evaluation.tried import tried
from knollstack.core.ground.drawing import ground_drawing
from knollstack.core.ground.well import build_well
from knollstack.core.logbook.drilled import as_drilled
from knollstack.core.pipe.detail import loads_of, offers_of
from knollstack.core.proposal.equipping import program_of
from knollstack.core.proposal.laid_out import laid_out
from knollstack.core.proposal.schools import both_schools
from knollstack.core.reading.read import parse
from knollstack.core.running.detail import tally_detail_of, tracks_of
from knollstack.core.runsheet.changes import line_changes, material_changes
from knollstack.core.sizes.nests import chains_of
from knollstack.formats import barrier_pages, job_sheet, tally, test_plan
from knollstack.formats import sheet as program_sheet
from knollstack.formats.cells import guess, read_rows, read_sheet, unclear
from knollstack.formats.headers import Target
from knollstack.formats.importing import Mapping, preview, take, tidied
from knollstack.rig.rows import RowDecoder
from knollstack.rig.simulated.timeline import timeline_of
from knollstack.rig.spans import Thinner
from knollstack.server import models
from knollstack.server.playing import asked_working
from knollstack.server.work import GONE

Document = Any
PROGRAMS_S = 3.5
"""How long all programs of a well, and what frees one, are sought, in time of the thread so that a busy machine finds as much."""


def worked(document: Document) -> Design:
    """A document as it is worked: with the facts of its log in force, where it brings one."""
    return as_drilled(parse(document)).design


def tell_fact_tables(document: Document) -> str:
    facts = as_drilled(parse(document)).facts
    tables = [models.FactTable(path=f.path, rows=f.value) for f in facts if isinstance(f.value, list)]
    return models.FactTables(tables=tables).model_dump_json()


def create_logbook(document: Document) -> str:
    detail, beside = of_log(parse(document), load())
    return models.LogbookView(detail=detail, side_by_side=beside).model_dump_json()


def tell_timeline(design: Design) -> str:
    return timeline_of(design, load()).model_dump_json()


def read_feed_file(data: bytes) -> str:
    """A CSV file of a rig's readings as thinned spans; raises FaultyDesign where it has none."""
    decoder, thinner = RowDecoder(), Thinner()
    made = [s for r in decoder.feed(data + b"\n") for s in thinner.add(r)] + list(thinner.end())
    counts = decoder.counts
    if not made:
        expected = "a line of headers (time, hole depth, hook load …) and a line a reading"
        raise FaultyDesign([Fault(path="", value=f"{counts.lines} lines, no reading", expected=expected)])
    rows = [(s.begins_s, s.span_s, json.dumps(s.as_lists(), separators=(",", ":"))) for s in made]
    told = {"readings": counts.records, "bad_lines": counts.bad_lines, "channels": decoder.known, "rows": rows}
    return json.dumps(told)


def create_evaluation(document: Document) -> str:
    return evaluate(parse(document), load()).model_dump_json()


def create_working(document: Document, key: str) -> str | None:
    calls = asked_working(document, key) or workings(parse(document), load()).get(key)
    return None if calls is None else models.Working(key=key, calls=shown_all(calls)).model_dump_json()


def draw_ground(document: Document) -> str:
    return ground_drawing(build_well(worked(document))).model_dump_json()


def draw_kick(document: Document) -> str:
    laid = laid_out(worked(document), load())
    drawings = [kick_drawing(laid.well, s, laid.next(s)) for s in laid.strings]
    return models.KickDrawings(strings=drawings).model_dump_json()


def create_loads(document: Document, string: int) -> str | None:
    found = loads_of(program_of(worked(document), load()), string)
    return None if found is None else found.model_dump_json()


def create_run(document: Document, string: int) -> str | None:
    found = tracks_of(program_of(worked(document), load()), string)
    return None if found is None else found.model_dump_json()


def create_tally(document: Document, string: int) -> str | None:
    found = tally_detail_of(program_of(worked(document), load()), string)
    return None if found is None else found.model_dump_json()


def create_cement_job(document: Document, string: int) -> str | None:
    found = job_detail_of(program_of(worked(document), load()), string)
    return None if found is None else found.model_dump_json()


def create_run_sheet(document: Document) -> str:
    return with_sheet(parse(document), load())[1].model_dump_json()


def tell_sheet_changes(issued: Document, document: Document) -> str:
    """What differs in the sheet of a document from that which was issued."""
    before, after = with_sheet(parse(issued), load())[1], with_sheet(parse(document), load())[1]
    return models.SheetDifferences(lines=list(line_changes(before.lines, after.lines))).model_dump_json()


def create_offers(document: Document, string: int) -> str:
    return offers_of(program_of(worked(document), load()), string).model_dump_json()


def create_chains(document: Document) -> str:
    return chains_of(laid_out(worked(document), load())).model_dump_json()


def create_programs(document: Document) -> str:
    end = time.thread_time() + PROGRAMS_S
    return both_schools(worked(document), load(), lambda: time.thread_time() < end).model_dump_json()


def try_remedies(document: Document) -> str:
    return tried(parse(document), load(), lambda: not GONE.get()()).model_dump_json()


def tell_summary(document: Document) -> str:
    return summary_of(evaluate(parse(document), load())).model_dump_json()


def compare(a: models.DesignItem, of_a: Design, b: models.DesignItem, of_b: Design) -> str:
    (in_a, sheet_a), (in_b, sheet_b) = with_sheet(of_a, load()), with_sheet(of_b, load())
    return models.Comparison(
        a=a,
        b=b,
        decisions=differences(of_a, of_b),
        side_by_side=side_by_side(in_a, in_b),
        materials=list(material_changes(sheet_a.materials, sheet_b.materials)),
        evaluation_a=in_a,
        evaluation_b=in_b,
    ).model_dump_json()


def write_sheet(design: Design, units: UnitSet, revision: int, saved_at: str, signed: program_sheet.Signed) -> bytes:
    return program_sheet.write(design, evaluate(design, load()), units, revision, saved_at, signed)


def write_rack(design: Design, string: int, units: UnitSet) -> str | None:
    found = tally_detail_of(program_of(design, load()), string)
    return None if found is None else tally.write_rack(found, units)


def write_bop_tests(design: Design, string: int, units: UnitSet) -> str | None:
    rows = evaluate(design, load()).preventers.strings
    found = rows[string] if 0 <= string < len(rows) else None
    return None if found is None or not found.tests else test_plan.write_test_plan(found, units)


def write_floor(design: Design, string: int, units: UnitSet, revision: int, saved_at: str) -> bytes | None:
    found = tally_detail_of(program_of(design, load()), string)
    if found is None:
        return None
    evaluation = evaluate(design, load())
    row, of = evaluation.running.strings[string], evaluation.strings[string]
    saved = f"saved {program_sheet.at(saved_at)}"
    return tally.write_floor(design.name, of, row, found, units, f"Revision {revision}", saved)


def write_job_sheet(design: Design, string: int, units: UnitSet, revision: int, saved_at: str) -> bytes | None:
    job = job_detail_of(program_of(design, load()), string)
    if job is None or not job.stages:
        return None
    evaluation = evaluate(design, load())
    row, of = evaluation.cement.strings[string], evaluation.strings[string]
    saved = f"saved {program_sheet.at(saved_at)}"
    return job_sheet.write_job_sheet(design.name, of, row, job, units, f"Revision {revision}", saved)


def write_barriers(design: Design, units: UnitSet, revision: int, saved_at: str) -> bytes | None:
    """A page for each state of the well, as its decision has it; None where it has no string yet."""
    evaluation = evaluate(design, load())
    states = evaluation.completion.states
    if not states:
        return None
    decided = design.completion.decision
    held = [s for s in states if decided is None or s.alternative in ("", decided)]
    saved = f"saved {program_sheet.at(saved_at)}"
    return barrier_pages.write_barriers(design.name, evaluation, held, units, f"Revision {revision}", saved)


def read_paste(target: Target, text: str, first: str, units: UnitSet) -> str:
    sheet = read_sheet(text)
    width = max((len(row) for row in sheet.cells), default=0)
    mapping = [m for m in guess(target, sheet.header, first) if m.source < width]
    left = unclear(target, sheet, mapping)
    if left:
        return models.Pasted(rows=[], keys=[], unclear=left).model_dump_json()
    rows = tidied(target, read_rows(target, sheet, mapping, units, whole=False))
    return models.Pasted(rows=rows, keys=[m.key for m in mapping], unclear=[]).model_dump_json()


def preview_import(name: str, data: bytes, target: Target) -> str:
    return preview(name, data, target).model_dump_json()


def take_import(
    name: str, data: bytes, target: Target, mapping: Mapping, trajectory: Trajectory, units: UnitSet
) -> str:
    return take(name, data, target, mapping, trajectory, units).model_dump_json()
