"""Properties of the ratings, and the loads of a string worked by hand."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from knollstack.core.catalogue.ratings import pipe_collapse, pipe_internal_yield, von_mises
from tests.helpers import CATALOGUE

OD = st.floats(4.5, 20)
RATIO = st.floats(8, 55)
YIELD = st.sampled_from([40_000, 55_000, 80_000, 95_000, 110_000, 125_000])


@given(OD, RATIO, YIELD, st.floats(0, 0.9))
def test_tension_never_raises_collapse(od, ratio, yield_psi, share):
    wall = od / ratio
    assert pipe_collapse(od, wall, yield_psi, share * yield_psi) <= pipe_collapse(od, wall, yield_psi) * (1 + 1e-9)
    assert pipe_collapse(od, wall, yield_psi, -share * yield_psi) == pipe_collapse(od, wall, yield_psi)


@given(OD, RATIO, YIELD, st.floats(1.001, 1.2))
def test_more_wall_never_lowers_a_rating(od, ratio, yield_psi, more):
    thin, thick = od / ratio, od / ratio * more
    assert pipe_internal_yield(od, thick, yield_psi) > pipe_internal_yield(od, thin, yield_psi)
    # the regimes meet within a fraction of a percent: that much is the equations' own
    assert pipe_collapse(od, thick, yield_psi) >= pipe_collapse(od, thin, yield_psi) * 0.998


@given(st.floats(10_000, 900_000))
def test_triaxial_is_uniaxial_in_pure_tension(force):
    area = np.pi / 4 * (9.625**2 - (9.625 - 2 * 0.472) ** 2)
    assert von_mises(9.625, 0.472, 0.0, 0.0, force) == pytest.approx(force / area, rel=1e-9)


@given(st.floats(500, 6000))
def test_triaxial_is_uniaxial_in_pure_pressure(psi):
    """Thin pipe under inside pressure alone: hoop p·(rₒ² + rᵢ²)/(rₒ² − rᵢ²), radial −p at the inner wall."""
    ro, ri = 9.625 / 2, 9.625 / 2 - 0.472
    hoop = psi * (ro**2 + ri**2) / (ro**2 - ri**2)
    expected = np.sqrt((hoop**2 + (hoop + psi) ** 2 + psi**2) / 2)
    assert von_mises(9.625, 0.472, psi, 0.0, 0.0) == pytest.approx(expected, rel=1e-9)


PUBLISHED_JOINT_PSI = [
    ("BTC", 9.625, 47.0, "P110", "leak_psi", 9160),
    ("BTC", 13.375, 72.0, "L80", "leak_psi", 4930),
    ("LTC", 7.0, 35.0, "P110", "coupling_psi", 12_700),
    ("LTC", 7.0, 38.0, "L80", "coupling_psi", 9240),
    ("BTC", 7.0, 35.0, "P110", "coupling_psi", 11_640),
    ("BTC", 7.0, 38.0, "L80", "coupling_psi", 8460),
]


@pytest.mark.parametrize(("connection", "od", "weight", "grade", "rating", "psi"), PUBLISHED_JOINT_PSI)
def test_published_coupling_ratings(connection, od, weight, grade, rating, psi):
    """API tables of internal yield of couplings and leak resistance, printed to 10 psi."""
    assert getattr(CATALOGUE.by_key[(od, weight, grade, connection)], rating) == pytest.approx(psi, abs=10)


def test_generic_and_unknown_connections_say_what_they_are():
    """A flush joint takes 60 % of the body by its named assumption; upset tubing all of it, and what is not upset is unknown."""
    flush = CATALOGUE.by_key[(7.0, 29.0, "L80", "FJ")]
    assert flush.joint_lbf == pytest.approx(0.6 * flush.body_lbf)
    assert (flush.coupling_od_in, flush.coupling_psi) == (7.0, flush.burst_psi)
    assert "assumed" in flush.joint.source
    upset = CATALOGUE.by_key[(2.875, 6.4, "L80", "EUE")]
    assert (upset.joint_lbf, upset.push_lbf, upset.leak_psi) == (upset.body_lbf, upset.body_lbf, upset.burst_psi)
    tubing = CATALOGUE.by_key[(2.875, 6.4, "L80", "NUE")]
    assert (tubing.joint_lbf, tubing.coupling_psi, tubing.leak_psi) == (None, None, None)
    assert tubing.drift_in == pytest.approx(2.875 - 2 * 0.217 - 0.09375)
    special = CATALOGUE.by_key[(9.625, 53.5, "P110", "BTC")]
    assert (special.drift_in, special.api_drift_in) == (8.5, pytest.approx(8.37875))
    assert CATALOGUE.by_key[(9.625, 47.0, "N80", "LTC")].torque_ft_lbf == pytest.approx(
        0.01 * CATALOGUE.by_key[(9.625, 47.0, "N80", "LTC")].joint_lbf
    )
