"""Drills over HTTP: kill sheets, rehearsals played on step by step, their debriefs, scores and scene files."""

from __future__ import annotations

import csv
import io
import json
from typing import Annotated, Any

from flask import Response, current_app, request
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel, Field

from knollstack.core.base.fields import Depth, Id, Pressure, Volume
from knollstack.core.drills.asked import AskedSheet
from knollstack.core.drills.debrief import Debrief
from knollstack.core.drills.events import MOST_S, DrillDoing
from knollstack.core.drills.results import KillSheet, ShutIn
from knollstack.core.drills.scene import TITLES, Scene
from knollstack.core.reading.read import parse_text
from knollstack.formats.defused import defused
from knollstack.formats.scene_file import read_scene, write_scene
from knollstack.server import models, playing
from knollstack.server.accounts import account
from knollstack.server.ask import heavy, light
from knollstack.server.database import connection, now
from knollstack.server.person import author
from knollstack.server.playing import DOINGS, DrillState
from knollstack.server.problems import Problem, not_found, respond
from knollstack.server.respond import as_json, attachment, json_of
from knollstack.store import drills as store
from knollstack.store.revisions import newest_revision
from knollstack.store.wells import find_design

MOST_AT_ONCE = 50
SAVED_EVERY_S = 60
blueprint = APIBlueprint("drills", __name__, url_prefix="/api")


class KillSheetBody(models.DocumentBody):
    hole: Id
    md_ft: Depth | None = None
    sidpp_psi: Pressure
    sicp_psi: Pressure
    gain_bbl: Volume


class KillSheetQuery(models.UnitsQuery):
    hole: Id
    md_ft: Annotated[float, Field(allow_inf_nan=False, ge=0, le=40_000)] | None = None
    sidpp_psi: Annotated[float, Field(allow_inf_nan=False, ge=0, le=50_000)]
    sicp_psi: Annotated[float, Field(allow_inf_nan=False, ge=0, le=50_000)]
    gain_bbl: Annotated[float, Field(allow_inf_nan=False, ge=0, le=10_000)]


class SceneBody(models.DocumentBody):
    scene: Scene


class StepsBody(BaseModel):
    """Bring the clock to a second, with what was done on the way, each at its second."""

    to_s: Annotated[int, Field(strict=True, ge=0, le=MOST_S)]
    doings: Annotated[list[DrillDoing], Field(max_length=MOST_AT_ONCE)] = []


class DrillPath(BaseModel):
    drill_id: models.RowId


class DrillView(BaseModel):
    id: int
    scene: Scene
    state: DrillState


class DrillItem(BaseModel):
    """A drill in the list; without a score it has not ended."""

    id: int
    person: str
    begun_at: str
    scene: Scene
    title: str
    clock_s: int
    ended: bool
    score: float | None


class DrillList(BaseModel):
    drills: list[DrillItem]


def _scene(row: store.DrillRow | store.ScoreRow) -> Scene:
    return Scene.model_validate_json(row.scene)


def _key(row: store.DrillRow) -> str:
    return f"{current_app.config['DATABASE']} {row.id} {row.begun_at}"


def _state(row: store.DrillRow, doings: list[DrillDoing], to_s: int, taken_up: bool = False) -> DrillState:
    text = light(playing.play_on, _key(row), json.loads(row.document), _scene(row), doings, to_s, taken_up)
    return DrillState.model_validate_json(text)


def _begun(design_id: int, scene: Scene, document: Any) -> Response:
    held = json.dumps(document, ensure_ascii=False)
    # tried before it is kept: a scene that cannot be played is refused
    light(playing.play_on, f"tried {scene.model_dump_json()}", document, scene, [], 0)
    drill = store.begin_drill(connection(), design_id, author(), now(), scene.model_dump_json(), held)
    row = store.find_drill(connection(), drill)
    assert row is not None
    return json_of(DrillView(id=drill, scene=scene, state=_state(row, [], 0)), 201)


@blueprint.post("/designs/<int:design_id>/drills", responses={201: DrillView, 404: Problem})
def begin_drill(path: models.DesignPath, body: SceneBody) -> Response:
    """Begin a rehearsal on a document as it stands, saved or not."""
    if find_design(connection(), path.design_id) is None:
        return not_found(f"design {path.design_id}")
    return _begun(path.design_id, body.scene, body.document)


@blueprint.post("/designs/<int:design_id>/drills/file", responses={201: DrillView, 404: Problem})
def begin_from_file(path: models.DesignPath) -> Response:
    """Begin the rehearsal of a scene file, on the design that it brings."""
    if find_design(connection(), path.design_id) is None:
        return not_found(f"design {path.design_id}")
    scene, document = read_scene(request.get_data())
    return _begun(path.design_id, scene, document)


@blueprint.get("/designs/<int:design_id>/drills", responses={200: DrillList, 404: Problem})
def list_drills(path: models.DesignPath) -> Response:
    """Every rehearsal of a design with its score, the newest first."""
    if find_design(connection(), path.design_id) is None:
        return not_found(f"design {path.design_id}")
    return json_of(DrillList(drills=_items(path.design_id)))


def _items(design_id: int) -> list[DrillItem]:
    found = []
    for row in store.list_drills(connection(), design_id):
        scene = _scene(row)
        found.append(
            DrillItem(
                id=row.id,
                person=row.person,
                begun_at=row.begun_at,
                scene=scene,
                title=TITLES[scene.kind],
                clock_s=row.clock_s,
                ended=row.ended_at is not None,
                score=row.score,
            )
        )
    return found


@blueprint.get("/designs/<int:design_id>/drills.csv", responses={404: Problem})
def export_scores(path: models.DesignPath) -> Response:
    """Scores by person as CSV."""
    row = find_design(connection(), path.design_id)
    if row is None:
        return not_found(f"design {path.design_id}")
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(
        ["Person", "Begun (UTC)", "Scene", "To do", "Difficulty", "Seed", "Depth, ft", "Took, s", "Score, %"]
    )
    for d in _items(path.design_id):
        score = "" if d.score is None else f"{d.score:.1f}"
        told = [defused(d.person), d.begun_at, d.title, d.scene.goal, d.scene.difficulty]
        writer.writerow([*told, d.scene.seed, f"{d.scene.md_ft:g}", d.clock_s, score])
    return attachment(out.getvalue(), "text/csv; charset=utf-8", f"{row.well_name} drills.csv")


@blueprint.get("/drills/<int:drill_id>", responses={200: DrillView, 404: Problem})
def get_drill(path: DrillPath) -> Response:
    """A rehearsal where it stands; of a long one that the server no longer holds, as far as it is played again."""
    row = store.find_drill(connection(), path.drill_id)
    if row is None:
        return not_found(f"drill {path.drill_id}")
    state = _state(row, DOINGS.validate_json(row.doings), row.clock_s, taken_up=True)
    return json_of(DrillView(id=row.id, scene=_scene(row), state=state))


@blueprint.post("/drills/<int:drill_id>/steps", responses={200: DrillView, 403: Problem, 404: Problem, 409: Problem})
def play_drill(path: DrillPath, body: StepsBody) -> Response:
    """Let the clock run; what was done is kept before it is answered."""
    row = store.find_drill(connection(), path.drill_id)
    if row is None:
        return not_found(f"drill {path.drill_id}")
    if row.ended_at is not None:
        return _over()
    if _anothers(row):
        return _not_ones_own()
    doings = [*DOINGS.validate_json(row.doings), *body.doings]
    state = _state(row, doings, max(body.to_s, row.clock_s))
    if body.doings or state.clock_s - row.clock_s >= SAVED_EVERY_S:
        kept = [d.model_copy(update={"at_s": at}) for d, at in zip(doings, state.done_s, strict=False)] + doings[
            len(state.done_s) :
        ]
        try:
            store.keep_doings(connection(), row.id, DOINGS.dump_json(kept).decode(), max(row.clock_s, state.clock_s))
        except store.EndedError:
            return _over()
    return json_of(DrillView(id=row.id, scene=_scene(row), state=state))


def _anothers(row: store.DrillRow) -> bool:
    return account() is not None and row.person != author()


def _not_ones_own() -> Response:
    detail = "Whoever began this drill plays it and is scored. Nothing was changed."
    return respond(Problem(title="Not allowed", status=403, detail=detail))


def _over() -> Response:
    return respond(Problem(title="Ended", status=409, detail="This drill has ended. Nothing was changed."))


@blueprint.post("/drills/<int:drill_id>/end", responses={200: Debrief, 403: Problem, 404: Problem, 409: Problem})
def end_drill(path: DrillPath, body: StepsBody) -> Response:
    """End a rehearsal and have its debrief; 409 while a long one is still being played again."""
    row = store.find_drill(connection(), path.drill_id)
    if row is None:
        return not_found(f"drill {path.drill_id}")
    kept = store.get_debrief(connection(), row.id)
    if kept is not None:
        return as_json(kept)
    if _anothers(row):
        return _not_ones_own()
    doings = [*DOINGS.validate_json(row.doings), *body.doings]
    to_s = max(body.to_s, row.clock_s, doings[-1].at_s if doings else 0)
    found = light(playing.debrief_of, _key(row), json.loads(row.document), _scene(row), doings, to_s)
    if found is None:
        return respond(
            Problem(title="Behind", status=409, detail="The drill is still being played again. Ask once more.")
        )
    score, text = found
    if body.doings:
        store.keep_doings(connection(), row.id, DOINGS.dump_json(doings).decode(), to_s)
    store.end_drill(connection(), row.id, to_s, now(), score, text)
    return as_json(text)


@blueprint.get("/drills/<int:drill_id>/debrief", responses={200: Debrief, 404: Problem})
def get_debrief(path: DrillPath) -> Response:
    """The debrief of a rehearsal that has ended."""
    kept = store.get_debrief(connection(), path.drill_id)
    return as_json(kept) if kept is not None else not_found(f"a debrief of drill {path.drill_id}")


@blueprint.get("/drills/<int:drill_id>/scene.json", responses={404: Problem})
def export_scene(path: DrillPath) -> Response:
    """The scene with the design that it is played on, to be shared."""
    row = store.find_drill(connection(), path.drill_id)
    if row is None:
        return not_found(f"drill {path.drill_id}")
    scene = _scene(row)
    text = write_scene(scene, json.loads(row.document))
    return attachment(text, "application/json; charset=utf-8", f"{TITLES[scene.kind]} seed {scene.seed}.json")


@blueprint.delete("/drills/<int:drill_id>", responses={204: None, 404: Problem})
def delete_drill(path: DrillPath) -> tuple[str, int] | Response:
    """Take a rehearsal out of the list, with its score."""
    if store.find_drill(connection(), path.drill_id) is None:
        return not_found(f"drill {path.drill_id}")
    store.delete_drill(connection(), path.drill_id)
    return "", 204


@blueprint.post("/kill-sheets", responses={200: KillSheet, 404: Problem})
def create_kill_sheet(body: KillSheetBody) -> Response:
    """The kill sheet of a hole of a document for what was read."""
    read = ShutIn(sidpp_psi=body.sidpp_psi, sicp_psi=body.sicp_psi, gain_bbl=body.gain_bbl)
    found = light(playing.create_kill_sheet, body.document, AskedSheet(body.hole, body.md_ft, read))
    return as_json(found) if found is not None else not_found(f"a hole {body.hole} whose kill sheet can be worked")


@blueprint.get("/designs/<int:design_id>/kill-sheet.pdf", responses={404: Problem})
def print_kill_sheet(path: models.DesignPath, query: KillSheetQuery) -> Response:
    """The kill sheet of one hole of the newest revision on one page, as PDF."""
    newest = newest_revision(connection(), path.design_id) if find_design(connection(), path.design_id) else None
    if newest is None:
        return not_found(f"design {path.design_id}")
    design = parse_text(newest.document)
    read = ShutIn(sidpp_psi=query.sidpp_psi, sicp_psi=query.sicp_psi, gain_bbl=query.gain_bbl)
    dated = newest.number, newest.saved_at
    asked = AskedSheet(query.hole, query.md_ft, read)
    pdf = heavy(playing.write_kill_sheet, design, asked, query.unit_set, *dated)
    if pdf is None:
        return not_found(f"a hole {query.hole} whose kill sheet can be worked")
    return attachment(pdf, "application/pdf", f"{design.name} kill sheet.pdf")
