"""A server with accounts, at the page: signing in, signing off, and a session that ends under one's hands."""

import contextlib

import pytest
from selenium.webdriver import Keys

from knollstack.server.passwords import hashed
from knollstack.store.accounts import add_account
from knollstack.store.database import connect
from tests.browser.test_workbench import DEMO

PASSWORD = "gravel under tallow"


@pytest.fixture
def team(page, tmp_path):
    with contextlib.closing(connect(tmp_path / "knollstack.sqlite")) as connection:
        for name, role in (("Ann Berg", "designer"), ("Cleo Marsh", "approver"), ("Vera Holt", "viewer")):
            add_account(connection, name, hashed(PASSWORD), role, "2026-01-01T00:00:00+00:00")
    return page


def sign_in(page, name, password=PASSWORD):
    page.find("[autocomplete=username]").send_keys(name)
    page.find("[type=password]").send_keys(password)
    page.click("Sign in")


def leave(page):
    page.run("return fetch('/api/session', {method: 'DELETE'}).then(r => r.status)")


def test_a_revision_is_approved_and_a_later_edit_is_not(team):
    team.open("/")
    sign_in(team, "Ann Berg", "wrong")
    team.sees("Name and password do not go together.")
    assert team.violations() == []
    team.find("[autocomplete=username]").send_keys(Keys.CONTROL, "a")
    sign_in(team, "Ann Berg")
    team.sees("4 wells")
    assert team.all('[aria-label="Your name"]') == [], "the account says who it is"
    team.open(DEMO + "/depths")
    team.type("/strings/2/shoe_md_ft", "7100")
    team.saved(2)
    leave(team)
    team.open(DEMO + "/depths")
    sign_in(team, "Cleo Marsh")
    team.click("not approved")
    team.sees("Open findings: 3 stops")
    team.click("Approve revision 2")
    team.sees("Approved by Cleo Marsh (approver)")
    assert team.violations() == []
    team.click("Close")
    team.find('[data-sign-off="approved"]')
    team.type("/strings/2/shoe_md_ft", "7200")
    team.strike('[data-sign-off="not approved"]')
    team.saved(3)
    team.sees("9 5/8 in shoe 7,100 ft → 7,200 ft")
    team.open("/designs/2/history")
    team.sees("approved by Cleo Marsh")


def test_a_session_that_ends_loses_no_edit(team):
    team.open("/")
    sign_in(team, "Ann Berg")
    team.sees("4 wells")
    team.open(DEMO + "/depths")
    team.shoe(2)
    team.refuse_saves(401)
    team.type("/strings/2/shoe_md_ft", "7350")
    team.sees("The session has ended.")
    team.sees("signed out; edits are kept here")
    team.reach_again()
    leave(team)
    sign_in(team, "Ann Berg")
    team.saved(2)
    assert team.shoe(2) == "7,350 ft"


def test_a_viewer_tries_things_out(team):
    team.open("/")
    sign_in(team, "Vera Holt")
    team.sees("4 wells")
    team.open(DEMO + "/depths")
    team.type("/strings/2/shoe_md_ft", "7350")
    team.sees("not saved: a viewer tries things out")
    team.until(lambda: team.shoe(2) == "7,350 ft", "evaluated all the same")
    assert team.document(2)["strings"][2]["shoe_md_ft"] == 7000.0
    team.click("Vera Holt")
    team.sees("Viewer: looks and tries out, saves nothing")
    team.click("Sign out")
    team.sees("Password")
