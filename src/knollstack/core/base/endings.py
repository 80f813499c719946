"""The unit of a name is its ending, so that a name can never disagree with its unit."""

# Ending of a name -> unit as shown to a person. Longest ending wins.
UNIT_ENDINGS: dict[str, str] = {
    "_deg_100ft": "°/100 ft",
    "_per_f": "1/°F",
    "_psi_ft": "psi/ft",
    "_bbl_ft": "bbl/ft",
    "_lb_ft": "lb/ft",
    "_lb_100ft2": "lbf/100 ft²",
    "_lb_sn_100ft2": "lbf·sⁿ/100 ft²",
    "_gpm": "gal/min",
    "_bbl_stroke": "bbl/stroke",
    "_md": "mD",
    "_bpm": "bbl/min",
    "_spm": "strokes/min",
    "_1_psi": "1/psi",
    "_ecp": "eq. cP",
    "_cp": "cP",
    "_gal_sk": "gal/sk",
    "_ft3_sk": "ft³/sk",
    "_ft_min": "ft/min",
    "_ft_hour": "ft/h",
    "_hours": "h",
    "_minutes": "min",
    "_days": "d",
    "_ft_s": "ft/s",
    "_ft_lbf": "ft·lbf",
    "_klbf": "1000 lbf",
    "_lbf": "lbf",
    "_ppg": "ppg",
    "_psi_f": "psi/°F",
    "_psia": "psia",
    "_psf": "psf",
    "_psi": "psi",
    "_ppf": "lb/ft",
    "_bbl": "bbl",
    "_gal": "gal",
    "_deg": "°",
    "_in2": "in²",
    "_ft": "ft",
    "_in": "in",
    "_lb_sk": "lb/sk",
    "_lb": "lb",
    "_sk": "sk",
    "_percent": "%",
    "_sg": "SG",
    "_f": "°F",
}


def unit_of(name: str) -> str:
    """The unit that a name ends in; '' for a pure number."""
    for ending in sorted(UNIT_ENDINGS, key=len, reverse=True):
        if name.endswith(ending):
            return UNIT_ENDINGS[ending]
    return ""
