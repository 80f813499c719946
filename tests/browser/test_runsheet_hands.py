"""The run sheet by hand: walked by the keyboard, asked for nonsense, worked at the rig floor of a platform and at sea."""

import pytest
from selenium.webdriver import Keys

from tests.browser.test_runsheet import LAND, asked, search, sheet


def focused(page):
    """The step whose line has the focus."""
    return page.run("return document.activeElement.closest('[data-step]')?.dataset.step ?? ''")


def walk(page, *keys):
    page.driver.switch_to.active_element.send_keys(*keys)


def test_the_sheet_is_walked_and_worked_by_the_keyboard_alone(page):
    page.open(LAND)
    page.choose("Section", "2")
    page.until(lambda: page.find('[data-step^="s3/"] button').send_keys(Keys.HOME) or True, "a step of the section")
    page.until(lambda: focused(page) == "s3/bha", "the first step of the section")
    walk(page, Keys.ARROW_DOWN)
    page.until(lambda: focused(page) == "s3/casing-test", "one further down")
    walk(page, Keys.ARROW_UP)
    page.until(lambda: focused(page) == "s3/bha", "and back")
    walk(page, Keys.ALT, Keys.ARROW_DOWN)
    page.until(lambda: [e for e in sheet(page)["edits"] if e["step"] == "s3/bha"], "moved one down")
    assert next(e["after"] for e in sheet(page)["edits"] if e["step"] == "s3/bha") == "s3/casing-test"
    page.until(lambda: focused(page) == "s3/bha", "the hand stays on what it moves")
    page.keys("z", held=Keys.CONTROL)
    page.until(lambda: not [e for e in sheet(page)["edits"] if e["step"] == "s3/bha"], "undone")
    walk(page, Keys.END)
    page.until(lambda: focused(page).startswith("s3/") and focused(page) != "s3/bha", "the last step of the section")


def test_while_an_entry_is_wrong_the_sheet_stands_and_is_told_to_be_the_last_that_could(page):
    page.open(LAND + "?tab=schedule")
    page.type("/runsheet/spud", "the eighth")
    page.sees("expected a date of the calendar")
    page.sees("What is shown is the last that could")
    page.click("Step by step")
    page.sees("Dig and line the cellar")
    page.click("Materials")
    page.sees("First order:")
    page.open(LAND)
    page.sees("Cannot be evaluated or saved yet")
    search(page, "leak-off")
    page.sees("Leak-off test at the 13 3/8 in shoe")
    page.click("Schedule")
    page.type("/runsheet/spud", "2027-03-08")
    page.gone("Cannot be evaluated or saved yet")


WRONG = [
    ('[data-rate-of="s4"] input', "schedule", "0", "at least 0.5 ft/h"),
    ('[data-rate-of="s4"] input', "schedule", "-3", "at least 0.5 ft/h"),
    ('[data-item="piece/0"] input[aria-label^="Lead time"]', "materials", "-4", "at least 0"),
    ('[data-item="piece/0"] input[aria-label^="Lead time"]', "materials", "soon", "enter a number"),
]


@pytest.mark.parametrize(("field", "tab", "typed", "told"), WRONG, ids=[f"{row[1]}-{row[2]}" for row in WRONG])
def test_nonsense_is_told_once_and_nothing_is_saved_of_it(page, field, tab, typed, told):
    page.open(f"{LAND}?tab={tab}")
    page.find(field).send_keys(typed, Keys.ENTER)
    page.sees(told)
    assert sheet(page).get("rates", []) == [] or all(r["ft_hour"] > 0 for r in sheet(page)["rates"])
    assert all((o["lead_days"] or 0) >= 0 for o in sheet(page).get("orders", []))
    # no number at all never comes into the document: its field alone says so
    assert len(page.all("section[role=alert] li")) == (typed != "soon")


def test_a_step_moved_before_the_spud_is_refused_in_words_and_undone(page):
    page.open(LAND)
    page.choose("Section", "1")
    page.until(lambda: page.find('[data-step="s2/bha"] button').send_keys(Keys.ALT, Keys.ARROW_UP) or True, "a step")
    page.sees("Cannot be evaluated or saved yet")
    page.sees("spud")
    assert not [e for e in sheet(page)["edits"] if e["step"] == "s2/bha"]
    page.keys("z", held=Keys.CONTROL)
    page.gone("Cannot be evaluated or saved yet")


def test_the_deep_wells_steps_are_gone_through_at_the_rig_floor(page):
    page.open("/designs/4/runsheet?tab=floor")
    page.sees("survey the sea floor")
    for _ in range(3):
        walk(page, Keys.ARROW_RIGHT)
    page.sees("Step 4 of")
    page.open("/designs/4/runsheet")
    search(page, "disconnect plan")
    assert len(page.all("[data-step]")) >= 2
    page.strike("[data-step] button")
    page.click("At the rig floor")
    page.sees("Disconnect plan")
    assert page.violations() == []


def test_a_test_over_what_stands_is_told_with_its_step(page):
    document = page.document(2)
    document["policy"]["preventers"] = {"low_test_psi": 3501.0}
    made = asked(page, "/api/wells", {"document": document})["design_id"]
    page.open(f"/designs/{made}/runsheet")
    page.sees("its low-pressure test is over its high one")
    search(page, "annular preventer, 5 in pipe across")
    page.sees("held")
    page.open(f"/designs/{made}/preventers")
    page.sees("usual practice is 250 psi to 350 psi")
    page.click("Test low at 300 psi")
    page.gone("usual practice is 250 psi to 350 psi")
    page.until(lambda: page.document(made)["policy"]["preventers"]["low_test_psi"] == 300.0, "saved")
