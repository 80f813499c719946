"""Reference data: units, formulas, catalogue, and the schema of the well file."""

from __future__ import annotations

from flask import Response, jsonify
from flask_openapi3 import APIBlueprint

from knollstack.catalogue import load
from knollstack.core.base.dictionary import WORDS
from knollstack.core.base.formula import CallError, Formula, FormulaError, call_named
from knollstack.core.base.units import table
from knollstack.core.base.working import input_of, outputs_of
from knollstack.core.document.described import fields
from knollstack.core.document.faults import Fault
from knollstack.core.document.log import KINDS
from knollstack.core.evaluation.steps import STEPS
from knollstack.formats import wellfile
from knollstack.formats.mathml import mathml
from knollstack.handbook import registry
from knollstack.server import models_reference
from knollstack.server.problems import faulty, not_found
from knollstack.server.respond import json_of

blueprint = APIBlueprint("reference", __name__, url_prefix="/api")


@blueprint.get("/units", responses={200: models_reference.UnitTable})
def list_units() -> Response:
    """Display units of every quantity, field and metric."""
    return json_of(models_reference.UnitTable(quantities=table()))


@blueprint.get("/reference", responses={200: models_reference.Reference})
def get_reference() -> Response:
    """Steps and fields of the document: titles, quantities, options, bounds and help; and what the terms mean."""
    steps = [models_reference.StepItem(step=e.step, title=e.title, places=e.places) for e in STEPS]
    kinds = [models_reference.LogKind(kind=kind, title=k.title, needs=k.needs, may=k.may) for kind, k in KINDS.items()]
    return json_of(models_reference.Reference(steps=steps, fields=fields(), terms=WORDS, log_kinds=kinds))


@blueprint.get("/catalogue", responses={200: models_reference.CatalogueView})
def get_catalogue() -> Response:
    """What a person chooses from: pipes, bits, casing sizes."""
    catalogue = load()
    pipes = [
        models_reference.PipeItem(
            od_in=p.od_in,
            weight_ppf=p.weight_ppf,
            wall_in=p.wall_in,
            drift_in=p.drift_in,
            grade=p.grade.grade,
            connection=p.connection,
        )
        for p in catalogue.pipes
        if p.kind == "casing"
    ]
    connections = [
        models_reference.ConnectionItem(connection=c.connection, title=c.title, source=c.source)
        for c in catalogue.connections
        if c.kind not in ("tubing", "welded")
    ]
    view = models_reference.CatalogueView(
        connections=connections,
        pipes=pipes,
        additives=[models_reference.AdditiveItem.model_validate(vars(row)) for row in catalogue.additives],
        bits_in=[b.bit_in for b in catalogue.bits],
        sizes_in=[s.od_in for s in catalogue.sizes],
    )
    return json_of(view)


@blueprint.get("/catalogue/pipes", responses={200: models_reference.PipeTable})
def list_pipes(query: models_reference.PipeQuery) -> Response:
    """Every pipe of one size, casing and tubing, with ratings and source."""
    pipes = [
        models_reference.PipeRatings(
            kind=p.kind,
            od_in=p.od_in,
            weight_ppf=p.weight_ppf,
            wall_in=p.wall_in,
            drift_in=p.api_drift_in,
            special_drift_in=p.special_drift_in,
            grade=p.grade.grade,
            connection=p.connection,
            coupling_od_in=p.coupling_od_in,
            burst_psi=p.burst_psi,
            coupling_psi=p.coupling_psi,
            leak_psi=p.leak_psi,
            collapse_psi=p.collapse_psi,
            body_lbf=p.body_lbf,
            joint_lbf=p.joint_lbf,
            source=f"{p.source}; {p.joint.source}",
        )
        for p in load().pipes
        if p.od_in == query.od_in
    ]
    return json_of(models_reference.PipeTable(pipes=pipes))


def _item(formula: Formula) -> models_reference.FormulaItem:
    inputs = [input_of(name, formula.defaults.get(name)) for name in formula.arguments]
    return models_reference.FormulaItem(
        name=formula.name,
        title=formula.title,
        symbolic=formula.symbolic,
        mathml=mathml(formula.symbolic),
        unit=formula.unit,
        source=formula.source,
        limits=[limit.text for limit in formula.limits],
        inputs=inputs,
    )


@blueprint.get("/formulas", responses={200: models_reference.FormulaList})
def list_formulas() -> Response:
    """The registry of formulas."""
    items = [_item(formula) for _, formula in sorted(registry().items())]
    return json_of(models_reference.FormulaList(formulas=items))


@blueprint.post("/formulas/<string:name>", responses={200: models_reference.Trial})
def try_formula(path: models_reference.FormulaPath, body: models_reference.TrialBody) -> Response:
    """Work one formula with other numbers."""
    formula = registry().get(path.name)
    if formula is None:
        return not_found(f"formula {path.name}")
    try:
        outputs = outputs_of(formula, call_named(formula, dict(body.inputs)))
    except FormulaError as error:
        return faulty(
            [Fault(path=f"/inputs/{error.argument}", value=f"{error.value} {error.unit}", expected=error.expected)]
        )
    except CallError as error:
        return faulty(
            [
                Fault(path=f"/inputs/{n}", value=w, expected="the formula's own arguments")
                for n, w in error.faults.items()
            ]
        )
    except (ValueError, TypeError, ArithmeticError, IndexError) as error:  # lists where it takes one number
        return faulty([Fault(path="/inputs", value=str(error), expected="numbers, or lists of one length")])
    return json_of(models_reference.Trial(name=formula.name, outputs=outputs))


@blueprint.get("/schema")
def get_schema() -> Response:
    """JSON Schema of the well file."""
    return jsonify(wellfile.schema())
