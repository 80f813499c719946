"""How long the work takes: drilling, tripping, running casing, three-point times, and what of them is lost.

Sources: planning arithmetic of the schedule; the three-point mean and deviation of the beta distribution as in network planning.
"""

import numpy as np

from knollstack.core.base.formula import Value, formula, plain_value

PLANNING = "Planning: rates of progress and times of single pieces of work"
THREE_POINT = "Beta distribution by its least, likely and most, as in network planning (PERT)"


@formula(
    "t = L/R + n·t_c/60",
    "h",
    PLANNING,
    ("drilled_ft >= 0", "drilling_ft_hour > 0", "connections >= 0", "connection_minutes >= 0"),
)
def drilling_hours(drilled_ft: Value, drilling_ft_hour: Value, connections: Value, connection_minutes: Value) -> Value:
    """Time to drill an interval: on bottom at its rate, and a connection with each stand.

    >>> drilling_hours(drilled_ft=945.0, drilling_ft_hour=45.0, connections=10, connection_minutes=6.0)
    22.0
    """
    return plain_value(np.asarray(drilled_ft) / drilling_ft_hour + np.asarray(connections) * connection_minutes / 60)


@formula(
    "t = (L_c·t_c + L_o·t_o)/(60·L_s)",
    "h",
    PLANNING,
    ("cased_ft >= 0", "open_ft >= 0", "stand_ft > 0", "cased_stand_minutes >= 0", "open_stand_minutes >= 0"),
)
def tripping_hours(
    cased_ft: Value, open_ft: Value, stand_ft: Value, cased_stand_minutes: Value, open_stand_minutes: Value
) -> Value:
    """Time of a trip one way by stands, in casing and in open hole.

    >>> tripping_hours(cased_ft=6000.0, open_ft=3000.0, stand_ft=100.0, cased_stand_minutes=3.0, open_stand_minutes=4.0)
    5.0
    """
    minutes = np.asarray(cased_ft) * cased_stand_minutes + np.asarray(open_ft) * open_stand_minutes
    return plain_value(minutes / (60 * np.asarray(stand_ft)))


@formula("t = max(n/r, t_s)", "h", PLANNING, ("joints >= 0", "joints_hour > 0", "surge_hours >= 0"))
def casing_hours(joints: Value, joints_hour: Value, surge_hours: Value) -> Value:
    """Time to run a string: at the crew's joints per hour, and no shorter than fills and the speed for surge let it be."""
    return plain_value(np.maximum(np.asarray(joints) / joints_hour, surge_hours))


@formula("t = t_p·(1 + s)", "h", PLANNING, ("productive_hours >= 0", "npt_share >= 0"))
def with_lost_time(productive_hours: Value, npt_share: Value) -> Value:
    """Time of work with the non-productive time that is added to it."""
    return plain_value(np.asarray(productive_hours) * (1 + np.asarray(npt_share)))


@formula("t = (a + 4·m + b)/6", "h", THREE_POINT, ("least_hours >= 0", "likely_hours >= 0", "most_hours >= 0"))
def expected_hours(least_hours: Value, likely_hours: Value, most_hours: Value) -> Value:
    """Mean of a time known by its least, likely and most.

    >>> expected_hours(least_hours=6.0, likely_hours=9.0, most_hours=18.0)
    10.0
    """
    return plain_value((np.asarray(least_hours) + 4 * np.asarray(likely_hours) + most_hours) / 6)


@formula("σ = (b − a)/6", "h", THREE_POINT, ("least_hours >= 0", "most_hours >= 0"))
def deviation_hours(least_hours: Value, most_hours: Value) -> Value:
    """Standard deviation of a time known by its least and most."""
    return plain_value((np.asarray(most_hours) - least_hours) / 6)
