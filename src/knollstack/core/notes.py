"""Findings on the ground itself: what is not given, and down to where it is known."""

from __future__ import annotations

from knollstack.core.findings import Finding, Severity, Step, Words
from knollstack.core.program import Program
from knollstack.core.well import depth

_WELLHEAD = "The wellhead at sea is not worked: housings, mudline hangers and their cut-off are not in it."
_NOT_WORKED: dict[str, tuple[tuple[Step, str], ...]] = {
    "land": (),
    "platform": (("wellhead", _WELLHEAD),),
    "subsea": (
        ("cement", "Cement is worked as on land: landing string, riser and sea water are not in it."),
        ("wellhead", _WELLHEAD),
        (
            "preventers",
            "Preventers are worked as on land: riser, hydrostatic head and the lower stack are not in them.",
        ),
    ),
}
"""What each setting leaves unworked, at the step that it concerns: no step is good on it."""


def judge_ground(program: Program) -> None:
    """Missing and short profiles, and what the setting leaves unworked."""
    well = program.well

    def add(severity: Severity, place: str, subject: str, message: Words) -> None:
        program.findings.append(
            Finding(severity=severity, step="ground", place=place, subject=(subject,), message=message)
        )

    total = well.path.total_tvd_ft
    for name, profile in (("pore", well.ground.pore), ("fracture", well.ground.fracture)):
        title = f"{name.capitalize()} profile"
        if not profile.known:
            add(
                "unknown",
                f"/ground/{name}",
                title,
                ("At least two points are needed. Nothing is judged without them.",),
            )
        elif profile.tvd_ft[-1] < total - 1e-6:
            message: Words = ("The profile ends at ", depth(float(profile.tvd_ft[-1])), " TVD; total depth is ",
                              depth(total), ". Below it nothing is known.")  # fmt: skip
            add("unknown", f"/ground/{name}", title, message)
    if not well.ground.model.zones:
        add(
            "unknown",
            "/ground/zones",
            "Zones",
            ("No zone is given: fresh water, losses and shoe rules cannot be judged.",),
        )
    for step, text in _NOT_WORKED[well.site.setting]:
        program.findings.append(
            Finding(severity="unknown", step=step, place="/site/setting", subject=("Setting",), message=(text,))
        )
    for i, string in enumerate(program.design.strings):
        above = program.design.strings[i - 1] if i else None
        if string.hanger_md_ft is not None and above is not None and string.hanger_md_ft >= above.shoe_md_ft:
            message = ("The hanger at ", depth(string.hanger_md_ft), " is not inside the string above, whose shoe is at ",
                       depth(above.shoe_md_ft), ".")  # fmt: skip
            program.findings.append(
                Finding(
                    severity="stop",
                    step="pipe",
                    place=f"/strings/{i}/hanger_md_ft",
                    subject=("Liner",),
                    message=message,
                )
            )
