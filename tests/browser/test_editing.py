"""Drags, tables, imports, units: what is put in, by mouse, by keys and from files, and how it is taken back."""

import json

import pytest
from selenium.webdriver import ActionChains, Keys

from tests.helpers import demo

DEMO, EMPTY = "/designs/2", "/designs/1"


def saved_points(page, profile="pore", design=2):
    return [(p["tvd_ft"], p["emw_ppg"]) for p in page.document(design)["ground"][profile]]


def wait_saved(page):
    page.until(lambda: page.find("[role=status]").get_attribute("data-save") == "saved", "saved")


def test_top_of_cement_is_dragged_nudged_and_typed_over(page):
    page.open(DEMO + "/depths")
    grip = '[data-grip="cement-2"]'
    top = lambda: page.find(grip).get_attribute("aria-valuetext").replace("\u00a0", " ")  # noqa: E731
    assert top() == "1,700 ft"
    page.drag(grip + " path", 0, 40)
    page.until(lambda: top() != "1,700 ft", "dragged")
    page.saved(2)  # one drag is one revision
    page.click("Undo")
    page.until(lambda: top() == "1,700 ft", "one undo")
    page.run("arguments[0].focus()", page.find(grip))
    page.keys(Keys.ARROW_DOWN, held=Keys.SHIFT)
    page.until(lambda: top() == "1,800 ft", "a hundred feet")
    page.keys("2")
    field = page.find("[data-type-over]")
    field.send_keys("010" + Keys.ENTER)
    page.until(lambda: top() == "2,010 ft", "typed over")
    wait_saved(page)
    assert page.document(2)["strings"][2]["cement"]["top_md_ft"] == 2010.0
    inside = lambda: page.run("return document.activeElement.dataset.grip")  # noqa: E731
    assert inside() == "cement-2", "the focus is back"
    page.keys("z", held=Keys.CONTROL)
    page.until(lambda: top() == "1,800 ft", "one undo takes the typed number back")
    page.keys("3")
    page.find("[data-type-over]").send_keys("000" + Keys.ESCAPE)
    page.until(lambda: not page.all("[data-type-over]"), "closed")
    assert (top(), inside()) == ("1,800 ft", "cement-2")
    page.keys("2")
    page.find("[data-type-over]").send_keys("010" + Keys.ENTER)
    page.until(lambda: top() == "2,010 ft", "typed again")
    page.keys(Keys.ENTER)
    page.find("[data-type-over]").send_keys("deep" + Keys.ENTER)
    page.sees('"deep": enter a number in ft')
    page.find("[data-type-over]").send_keys(Keys.ESCAPE)
    page.gone("enter a number")
    assert top() == "2,010 ft"


def test_a_mud_weight_is_dragged_in_its_window(page):
    page.open(DEMO + "/mud")
    mud = lambda: page.find('[data-grip="mud-2"]').get_attribute("aria-valuenow")  # noqa: E731
    assert mud() == "9.2"
    page.drag('[data-grip="mud-2"]', 16, 0)
    page.until(lambda: float(mud()) > 9.4, "dragged")
    assert float(mud()) * 10 == pytest.approx(round(float(mud()) * 10)), "in tenths"
    page.click("Undo")
    page.until(lambda: mud() == "9.2", "one undo")
    page.run("arguments[0].focus()", page.find('[data-grip="mud-2"]'))
    page.keys(Keys.ARROW_RIGHT)
    page.until(lambda: mud() == "9.3", "a tenth")
    wait_saved(page)
    assert page.document(2)["strings"][2]["mud_ppg"] == 9.3


def test_a_liner_top_is_dragged_and_stays_above_its_shoe(page):
    document = demo()
    document["strings"][3] |= {"run": "liner", "hanger_md_ft": 6700.0}
    page.run(
        "return fetch('/api/designs/2', {method: 'PUT', body: arguments[0], headers: {'Content-Type': 'application/json'}})"
        ".then(r => r.status)",
        json.dumps({"well_id": 2, "based_on": 1, "document": document}),
    )
    page.open(DEMO + "/depths")
    page.run("arguments[0].focus()", page.find('[data-grip="liner-3"]'))
    for _ in range(3):
        page.keys(Keys.ARROW_UP, held=Keys.SHIFT)
    page.until(lambda: "6,400" in page.find('[data-grip="liner-3"]').get_attribute("aria-valuetext"), "nudged")
    page.saved(3, or_later=True)
    assert page.document(2)["strings"][3]["hanger_md_ft"] == 6400.0


def test_profile_points_snap_to_boundaries_and_round_numbers(page):
    page.open(DEMO + "/ground")
    page.click("Fracture")
    grip = '[data-grip="fracture-7"]'  # at 8,240 ft, where the Rook sand begins; the shale above ends there
    page.drag(grip + " circle:last-of-type", -8, 4)
    page.until(lambda: page.value("/ground/fracture/7/emw_ppg") != "15.4", "dragged")
    assert page.value("/ground/fracture/7/tvd_ft") == "8,240", "the boundary near by holds it"
    emw = float(page.value("/ground/fracture/7/emw_ppg"))
    assert emw == pytest.approx(round(emw, 1))
    page.keys("s")  # snapping off
    page.drag(grip + " circle:last-of-type", 0, 4)
    page.until(lambda: page.value("/ground/fracture/7/tvd_ft") != "8,240", "no boundary holds it")
    page.keys("s")
    page.run("arguments[0].focus()", page.find(grip))
    page.keys(Keys.INSERT)
    page.find('[data-grip="fracture-11"]')
    page.keys(Keys.DELETE)
    page.until(lambda: not page.all('[data-grip="fracture-11"]'), "removed again")
    page.drag('[data-grip="fracture-9"] circle:last-of-type', 20, -20, release=False)
    page.until(lambda: page.value("/ground/fracture/9/tvd_ft") != "11,720", "dragged")
    page.keys(Keys.ESCAPE)
    page.until(lambda: page.value("/ground/fracture/9/tvd_ft") == "11,720", "Escape takes it back")
    ActionChains(page.driver).release().perform()


def test_a_table_is_worked_like_a_spreadsheet(page):
    page.open(DEMO + "/ground")
    page.click("Pore")
    cell = page.find('[data-place="/ground/pore/1/tvd_ft"]')
    page.strike(lambda: cell)
    cell.send_keys(Keys.ARROW_RIGHT, Keys.ARROW_DOWN)
    at = page.run("return document.activeElement.dataset.place")
    assert at == "/ground/pore/2/emw_ppg"
    page.keys("9")  # typing replaces, Tab and Enter keep
    page.run("return document.activeElement").send_keys(".05" + Keys.ENTER)
    page.until(lambda: page.value("/ground/pore/2/emw_ppg") == "9.05", "typed")
    assert page.run("return document.activeElement.dataset.place") == "/ground/pore/3/emw_ppg", "Enter goes down"
    page.keys("x")
    page.keys(Keys.ENTER)
    page.sees('Row 4. EMW: "x"; expected a number in ppg.')
    assert page.value("/ground/pore/3/emw_ppg") == "x", "what was typed stays"
    page.keys(Keys.F2)
    page.keys(Keys.ESCAPE)
    page.gone("Row 4.")
    page.type("/ground/pore/0/tvd_ft", "2000")  # sorted by depth when it is put in
    page.until(lambda: page.value("/ground/pore/0/tvd_ft") == "2,000", "still the first")
    page.type("/ground/pore/0/tvd_ft", "5000 m")
    page.until(lambda: page.value("/ground/pore/6/tvd_ft") == "16,404.2", "sorted to where it belongs")
    assert page.run("return document.activeElement.dataset.place") == "/ground/pore/6/tvd_ft", "and the cursor with it"
    page.click("Undo")
    page.until(lambda: page.value("/ground/pore/6/tvd_ft") == "12,600", "back")
    page.strike('[data-place="/ground/pore/5/tvd_ft"]')
    page.keys(Keys.ARROW_DOWN, held=Keys.SHIFT)
    page.keys(Keys.DELETE, held=Keys.CONTROL)
    page.until(lambda: not page.all('[data-place="/ground/pore/5/tvd_ft"]'), "two rows gone")
    wait_saved(page)
    assert [p[0] for p in saved_points(page)] == [2000, 3350, 8600, 9300, 10800]


def test_blocks_are_pasted_with_units_and_refused_whole(page):
    page.open(EMPTY + "/ground")
    page.click("Pore")
    page.paste("/ground/pore/0/tvd_ft", "TVD (m)\tPore (SG)\n100\t1,02\n4.000\t1,45")
    page.until(lambda: page.value("/ground/pore/6/tvd_ft") == "13,123.4", "metres, decimal commas")
    page.click("Undo")
    page.until(lambda: page.value("/ground/pore/1/tvd_ft") == "3,350", "one undo")
    page.paste("/ground/pore/0/tvd_ft", "100\t8.6\n200\tnine")
    page.sees("Nothing was pasted.")
    page.sees('row 2, EMW: "nine"; expected a number in ppg.')
    page.click("Close")
    page.gone("Nothing was pasted.")
    block = "\n".join(f"{30 + 25 * i}\t{8.4 + i * 0.005:.3f}" for i in range(500))
    page.paste("/ground/pore/0/tvd_ft", block)
    page.until(lambda: page.find("[role=grid]").get_attribute("aria-rowcount") == "501", "500 rows and the head")
    wait_saved(page)
    assert len(saved_points(page, design=1)) == 500
    page.click("Flags")
    page.paste("/ground/zones/0/permeable", "yes\tyes\tno\tno\nno\tno\tyes\tno")
    page.until(lambda: page.document(1)["ground"]["zones"][0]["permeable"], "the flags, read and saved")
    zones = page.document(1)["ground"]["zones"]
    assert (zones[0]["permeable"], zones[0]["hazards"], zones[1]["hazards"]) == (True, ["losses"], ["overpressure"])


def test_import_shows_what_it_would_do_and_then_does_it(page, tmp_path):
    source = tmp_path / "fracture.csv"
    source.write_text("Depth (m);Frac (g/cc)\n10;1,40\n3840;2,05\n")
    page.open(EMPTY + "/ground")
    page.click("Fracture")
    page.click("Import")
    page.find('[aria-label="Table file"]').send_keys(str(source))
    page.sees("no column; expected a column for EMW")
    assert not page.find('[role=dialog] button[class*="font-semibold"]').is_enabled()
    select = page.find('[aria-label="Column for EMW"]')
    select.send_keys("Frac")
    page.find('[aria-label="Unit of EMW"]').send_keys("SG")
    page.sees("Gives 2 rows.")
    assert page.violations() == []
    assert page.value("/ground/fracture/0/emw_ppg") == "11.8", "nothing changed yet"
    page.click("Replace the table with these rows")
    page.until(lambda: page.value("/ground/fracture/1/tvd_ft") == "12,598.4", "imported")
    wait_saved(page)
    assert len(saved_points(page, "fracture", 1)) == 2
    link = page.until(lambda: page.find('a[href*="/tables/fracture"]').get_attribute("href"), "the export")
    text = page.run("return fetch(arguments[0]).then(r => r.text())", link)
    assert text.split()[:3] == ["TVD", "(ft),EMW", "(ppg)"]
    page.click("Undo")
    page.until(lambda: page.value("/ground/fracture/0/emw_ppg") == "11.8", "undone as one step")
    bad = tmp_path / "bad.las"
    bad.write_text("~Version\n nothing")
    page.click("Import")
    page.find('[aria-label="Table file"]').send_keys(str(bad))
    page.sees("expected a LAS file")


def test_strings_as_a_table_adopt_the_proposal(page):
    page.open(EMPTY + "/depths")
    page.click("As a table")
    page.type("/strings/1/mud_ppg", "9.4")
    wait_saved(page)
    strings = page.document(1)["strings"]
    assert len(strings) >= 3
    assert strings[1]["mud_ppg"] == 9.4
    page.type("/strings/1/bit_in", "17 1/2")
    page.until(lambda: page.value("/strings/1/bit_in") == "17 1/2", "a fraction")


def test_the_table_of_strings_refuses_what_one_by_one_refuses_and_keeps_its_order(page):
    page.open(DEMO + "/depths")
    page.click("As a table")
    page.type("/strings/1/shoe_md_ft", "9000")
    page.sees("Cannot be evaluated or saved yet")
    assert [page.value(f"/strings/{i}/shoe_md_ft") for i in range(4)] == ["130", "9,000", "7,000", "12,600"]
    page.click("Undo")
    page.gone("Cannot be evaluated or saved yet")
    page.click("Add")
    page.until(lambda: page.value("/strings/3/shoe_md_ft") == "9,800", "a string above the last, midway")
    assert page.value("/strings/4/shoe_md_ft") == "12,600"


def test_a_rock_is_typed_as_a_word(page):
    page.open(DEMO + "/ground")
    page.click("Zones")
    for typed, taken in (("gas", None), ("sandstone", "sand"), ("lime", "limestone"), ("sh", "shale")):
        page.type("/ground/zones/2/rock", typed)
        if taken is None:
            page.sees('"gas"; expected one of')
            page.keys(Keys.ESCAPE)
        else:
            page.until(lambda taken=taken: page.value("/ground/zones/2/rock") == taken, taken)
    page.type("/ground/zones/2/fluid", "gas")
    page.until(lambda: page.value("/ground/zones/2/fluid") == "gas", "the fluid")


def test_a_pasted_block_that_is_not_understood_is_mapped_before_anything_changes(page):
    page.open(DEMO + "/ground")
    page.click("Fracture")
    before = page.document(2)["ground"]["fracture"]
    page.paste("/ground/fracture/0/tvd_ft", "TVD\tGamma\tFracture gradient\n30\t55\t12\n12600\t60\t16")
    page.sees("Not every heading or column of the block is understood.")
    assert page.document(2)["ground"]["fracture"] == before
    page.sees("Gives 2 rows.")
    page.click("Replace the table with these rows")
    page.until(lambda: page.value("/ground/fracture/1/emw_ppg") == "16", "the mapped columns")


def test_mixed_units_are_kept_and_round_trip(page):
    page.open(DEMO + "/depths")
    page.click("ft · ppg · psi")
    for label, unit in (("Depth", "m"), ("Mud weight", "SG")):
        page.driver.find_element("xpath", f'//label[contains(., "{label}")]/select').send_keys(unit)
    page.keys(Keys.ESCAPE)
    page.sees("m · SG · psi")
    page.type("/strings/2/shoe_md_ft", "2100.123")
    page.until(lambda: page.value("/strings/2/shoe_md_ft") == "2,100.123", "as typed")
    page.open(DEMO + "/mud")
    page.sees("m · SG · psi")
    page.type("/strings/2/mud_ppg", "10,9 kPa/m")
    page.until(lambda: page.value("/strings/2/mud_ppg").startswith("1.11"), "a gradient typed where SG is shown")
    page.strike("h1")
    page.keys("u")
    page.sees("m · SG · bar")
    page.type("/strings/2/mud_ppg", "9.3 ppg")
    wait_saved(page)
    assert page.document(2)["strings"][2]["mud_ppg"] == 9.3
    held = [(p["tvd_ft"], p["emw_ppg"]) for p in page.document(2)["ground"]["pore"]]
    assert held == [(p["tvd_ft"], p["emw_ppg"]) for p in demo()["ground"]["pore"]]
