"""Conductor depth for returns: the mud column from flowline to shoe against the strength of the ground there."""

from knollstack.core.constants import SEA_WATER_PPG
from knollstack.core.formula import Value, formula

RETURNS = "Balance of the mud column and the ground's strength at the shoe, textbook conductor design"


@formula("D = ρ·h_f/(F − ρ)", "ft", RETURNS, ("mud_ppg > 0", "fracture_ppg > mud_ppg", "flowline_height_ft >= 0"))
def conductor_depth_land(mud_ppg: Value, fracture_ppg: Value, flowline_height_ft: Value) -> Value:
    """Least conductor depth below ground for returns to the flowline."""
    return mud_ppg * flowline_height_ft / (fracture_ppg - mud_ppg)


@formula(
    "D = (ρ·(h_a + h_w) − ρ_w·h_w)/(F_s − ρ)",
    "ft",
    RETURNS,
    ("mud_ppg > 0", "soil_ppg > mud_ppg", "air_gap_ft >= 0", "water_depth_ft >= 0", "sea_water_ppg > 0"),
)
def conductor_depth_sea(
    mud_ppg: Value,
    soil_ppg: Value,
    air_gap_ft: Value,
    water_depth_ft: Value,
    sea_water_ppg: Value = SEA_WATER_PPG,
) -> Value:
    """Least conductor depth below mudline for returns to the rig."""
    return (mud_ppg * (air_gap_ft + water_depth_ft) - sea_water_ppg * water_depth_ft) / (soil_ppg - mud_ppg)
