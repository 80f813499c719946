"""What is learnt: evaluation by section with its rig time, and logged pressures beside the profile."""

from __future__ import annotations

from knollstack.core.base.findings import Change
from knollstack.core.base.formulas import equivalent_mud_weight
from knollstack.core.base.working import headline
from knollstack.core.completion.formulas import interval_hours
from knollstack.core.completion.results import PointRow, SurveyRow
from knollstack.core.document.completion import LoggedPressure, Survey
from knollstack.core.program.equipped import Equipped, EquippedString

SAME_FT, SAME_PPG = 0.5, 0.005
WHILE_DRILLING = ("cuttings", "logs while drilling")


def section_of(equipped: Equipped, survey: Survey) -> EquippedString | None:
    """The hole that its lower end stands in."""
    holes = (s for s in equipped.strings if s.drilled and s.previous_shoe_md_ft < survey.to_md_ft <= s.shoe_md_ft)
    return next(holes, None)


def survey_rows(equipped: Equipped) -> tuple[SurveyRow, ...]:
    rows = []
    for k, survey in enumerate(equipped.design.completion.evaluation):
        section, key = section_of(equipped, survey), f"completion/survey/{k}"
        with headline(key):
            hours = _hours(equipped, survey)
        rows.append(
            SurveyRow(
                section=section.hole_words if section is not None else (),
                string=section.index if section is not None else None,
                hours=hours if survey.hours is None else survey.hours,
                given=survey.hours is not None,
                working=key,
            )
        )
    return tuple(rows)


def _hours(equipped: Equipped, survey: Survey) -> float:
    """Nothing of the rig's where it is done while drilling."""
    policy, length = equipped.well.policy.completion, survey.to_md_ft - survey.from_md_ft
    if survey.kind in WHILE_DRILLING:
        return 0.0
    if survey.kind == "core":
        return float(interval_hours(length, policy.core_ft_hour, survey.to_md_ft, policy.trip_ft_hour))
    if survey.kind == "wireline logs":
        return float(interval_hours(length, policy.log_ft_hour, survey.to_md_ft, policy.wireline_ft_hour))
    by_kind = {"leak-off test": policy.leak_off_hours, "well test": policy.well_test_hours}
    return by_kind.get(survey.kind, policy.points_each_hours)


def point_rows(equipped: Equipped) -> tuple[PointRow, ...]:
    return tuple(_point(equipped, k, p) for k, p in enumerate(equipped.design.completion.pressure_points))


def _point(equipped: Equipped, k: int, point: LoggedPressure) -> PointRow:
    well, key = equipped.well, f"completion/point/{k}"
    tvd = max(well.path.tvd(min(point.md_ft, well.path.total_md_ft)), 1.0)
    with headline(key):
        weight = float(equivalent_mud_weight(point.psi, tvd))
    points = equipped.design.ground.pore
    held = any(abs(p.tvd_ft - tvd) < SAME_FT and abs(p.emw_ppg - weight) < SAME_PPG for p in points)
    return PointRow(
        tvd_ft=tvd,
        emw_ppg=weight,
        profile_ppg=well.ground.pore.one(tvd),
        in_profile=held,
        changes=(_taken(equipped, point, tvd, weight),),
        working=key,
    )


def _taken(equipped: Equipped, point: LoggedPressure, tvd_ft: float, emw_ppg: float) -> Change:
    """The profile with this point in its place; what stood at its depth gives way."""
    said = ", ".join(text for text in (point.source, point.date) if text)
    fresh = {
        "tvd_ft": round(tvd_ft, 1),
        "emw_ppg": round(emw_ppg, 3),
        "source": f"measured: {said}" if said else "measured",
    }
    others = [p.model_dump(mode="json") for p in equipped.design.ground.pore if abs(p.tvd_ft - tvd_ft) >= SAME_FT]
    return Change(path="/ground/pore", value=sorted([*others, fresh], key=lambda p: p["tvd_ft"]))
