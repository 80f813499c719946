"""What the engineer does, in a browser."""

import json

import pytest
from selenium.webdriver import ActionChains, Keys
from selenium.webdriver.common.by import By

from tests.helpers import demo, run

DEMO, EMPTY = "/designs/2", "/designs/1"
STEPS = ("ground", "depths", "sizes", "mud", "pipe", "running", "cement", "wellhead", "preventers", "policy")


def test_drag_a_shoe_until_it_fails_follow_the_remedy_reload_export_import(page):
    page.open("/")
    page.click("Harrow Fen 3, empty start")
    page.sees("ECD, surge and swab are unknown")
    page.open(DEMO + "/depths")
    page.sees("3 stops")
    assert page.shoe(2) == "7,000 ft"
    page.drag_shoe(2, -30)
    page.sees("; policy asks 25.0 bbl.")
    moved = page.shoe(2)
    assert moved != "7,000 ft"
    assert page.find('nav a[href*="/depths"]').get_attribute("data-state") == "stop"
    page.saved(2)  # the whole drag is one revision
    page.click("Move the shoe")
    page.gone("; policy asks 25.0 bbl.")
    page.sees("3 stops")
    mended = page.shoe(2)
    assert mended == "6,840 ft"
    page.saved(3)
    page.open(DEMO + "/depths")
    page.until(lambda: page.shoe(2) == mended, "the mended shoe after a reload")
    page.click("Well file")
    folder = page.driver.downloads
    exported = page.until(lambda: [p for p in folder.glob("*.well.json") if p.stat().st_size], "the well file")[0]
    document = json.loads(exported.read_text())
    assert document["strings"][2]["shoe_md_ft"] == 6840.0
    page.gone("Trying remedies")
    here = page.find("aside").text
    page.open("/")
    page.find("input[type=file]").send_keys(str(exported))
    page.until(lambda: "/designs/5/ground" in page.driver.current_url, "the imported well")
    page.click("Depths")
    page.until(lambda: page.shoe(2) == mended, "the same shoe elsewhere")
    page.gone("Trying remedies")
    assert page.find("aside").text == here, "the same findings"
    exported.unlink()


def test_undo_redo_and_escape(page):
    page.open(DEMO + "/depths")
    page.drag_shoe(2, -60)
    page.saved(2)
    moved = page.shoe(2)
    assert moved != "7,000 ft"
    page.click("Undo")
    page.until(lambda: page.shoe(2) == "7,000 ft", "one undo takes the whole drag back")
    page.click("Redo")
    page.until(lambda: page.shoe(2) == moved, "redo")
    page.strike("h1")
    page.keys("z", held=Keys.CONTROL)
    page.until(lambda: page.shoe(2) == "7,000 ft", "undo by keys")
    page.drag_shoe(1, 80, release=False)
    page.until(lambda: page.shoe(1) != "2,000 ft", "dragging")
    page.keys(Keys.ESCAPE)
    page.until(lambda: page.shoe(1) == "2,000 ft", "Escape returns to where it began")
    ActionChains(page.driver).release().perform()
    assert page.shoe(1) == "2,000 ft"


def test_nudge_by_keys_and_type_over(page):
    page.open(DEMO + "/depths")
    page.run("arguments[0].focus()", page.find('[data-shoe="2"]'))
    page.keys(Keys.ARROW_UP)
    page.until(lambda: page.shoe(2) == "6,990 ft", "ten feet up")
    page.keys(Keys.ARROW_UP, held=Keys.SHIFT)
    page.until(lambda: page.shoe(2) == "6,890 ft", "a hundred with Shift")
    page.type("/strings/2/shoe_md_ft", "7,250")
    page.until(lambda: page.shoe(2) == "7,250 ft", "typed")
    page.saved(2, or_later=True)


def test_the_fields_of_a_step_are_three_keys_away(page):
    page.open("/designs/2/pipe")
    page.find("#step-fields button")
    page.keys(Keys.TAB)
    page.until(
        lambda: page.run("return document.activeElement.textContent") == "Skip to the fields of this step", "link"
    )
    assert page.run("return document.activeElement.getBoundingClientRect().height") >= 24
    page.keys(Keys.ENTER)
    page.keys(Keys.TAB)
    assert page.run(
        "return document.activeElement.closest('#step-fields') !== null && document.activeElement.id !== 'step-fields'"
    )


def test_a_whole_design_from_an_empty_well_by_keyboard(page):
    """New well, ground typed cell by cell; the program follows and is adopted."""
    page.open("/")
    page.find("button")
    page.click("New well")
    page.sees("Basis and ground")
    page.click("Depths")
    page.click("Go to Ground")  # what is to be entered before a program can be proposed
    page.until(lambda: page.run("return document.activeElement.dataset.place") == "/ground/pore", "focused")
    page.click("Site")
    page.type("/name", "Corrie 1")
    page.type("/site/h2s_ppm", "0")
    page.type("/site/co2_percent", "0")
    page.type("/site/rotary_room_ft", "28")
    page.type("/site/surface_temperature_f", "60")
    page.type("/site/bottom_temperature_f", "200")
    for tab, rows in (("Pore", [("30", "8.6"), ("10000", "9.4")]), ("Fracture", [("30", "13"), ("10000", "16")])):
        page.click(tab)
        for i, (depth, emw) in enumerate(rows):
            page.click("Add")
            page.type(f"/ground/{tab.lower()}/{i}/emw_ppg", emw)
            page.type(f"/ground/{tab.lower()}/{i}/tvd_ft", depth)
    page.click("Zones")
    page.click("Add")
    page.type("/ground/zones/0/base_tvd_ft", "900")
    page.type("/ground/zones/0/top_tvd_ft", "30")
    page.click("Depths")
    page.sees("Proposed from the ground bottom up")
    page.click("Adopt")
    page.gone("Proposed from the ground bottom up")
    page.click("Mud")
    for i, (rate, low, high) in enumerate((("800", "20", "32"), ("450", "28", "44")), start=1):
        for key, value in (("flow_gpm", rate), ("reading_300", low), ("reading_600", high)):
            page.type(f"/strings/{i}/{key}", value)
    page.gone("ECD, surge and swab are unknown")
    page.click("Running")
    page.click("Hook load")
    rig = ("hook_load_limit_lbf", "500000"), ("block_lbf", "30000"), ("elevator_lbf", "500000")
    for key, value in (*rig, ("spider_lbf", "500000"), ("tong_ft_lbf", "25000")):
        page.type(f"/site/{key}", value)
    page.click("Cement")
    page.click("Placing")
    for i, size in ((1, "9 5/8"), (2, "5 1/2")):
        page.strike(lambda size=size: next((b for b in page.all("[aria-label=String] button") if size in b.text), None))
        page.type(f"/strings/{i}/cement/thickening_minutes", "300")
        if page.all(f'[data-place="/strings/{i}/cement/lead_thickening_minutes"]'):
            page.type(f"/strings/{i}/cement/lead_thickening_minutes", "300")
    page.gone("Thickening time is not given")
    page.click("BOPs")
    page.click("tubing's size is not decided")
    page.type("/policy/sizes/tubing_od_in", "2 3/8")
    page.gone("tubing's size is not decided")
    page.click("Completion")
    page.sees("is not decided: how it is left is unknown")
    page.find('[aria-label="Plug and abandon"] [role="radio"]').send_keys(Keys.ENTER)
    page.gone("is not decided: how it is left is unknown")
    page.until(lambda: page.find("[role=status]").get_attribute("data-save") == "saved", "saved")
    document = page.document(5)
    assert document["name"] == "Corrie 1"
    assert [(p["tvd_ft"], p["emw_ppg"]) for p in document["ground"]["pore"]] == [(30, 8.6), (10_000, 9.4)]
    assert [s["role"] for s in document["strings"]] == ["conductor", "surface", "production"]
    states = {p.step: p.state for p in run(document).path}
    assert states.pop("logbook") == "blank", "nothing has happened yet"
    assert set(states.values()) <= {"good", "caution"}
    for step in STEPS:
        page.find(f'nav a[href*="/{step}"]').send_keys(Keys.ENTER)
        page.until(lambda step=step: f"/{step}" in page.driver.current_url, step)
    assert page.find("h1").text == "Corrie 1"


def test_nonsense_is_said_at_its_place_and_nothing_is_lost(page):
    page.open(DEMO + "/depths")
    page.type("/strings/2/shoe_md_ft", "deep")
    page.sees('"deep": enter a number in ft')
    assert page.value("/strings/2/shoe_md_ft") == "deep"
    page.keys(Keys.ESCAPE)
    page.type("/strings/2/shoe_md_ft", "-5")
    page.sees("Cannot be evaluated or saved yet")
    page.sees("String 3, Shoe: -5; expected at least 0 ft.")
    assert page.find('[data-place="/strings/2/shoe_md_ft"]').get_attribute("aria-invalid") == "true"
    page.until(lambda: page.find("[role=status]").get_attribute("data-save") == "faulty", "not saved")
    page.open(DEMO + "/depths")
    page.sees("Cannot be evaluated or saved yet")  # the faulty entry outlives the reload
    page.type("/strings/2/shoe_md_ft", "7100")
    page.gone("Cannot be evaluated or saved yet")
    page.saved(2)
    page.type("/strings/3/shoe_md_ft", "99999")
    page.sees("expected at most 40000 ft")
    page.type("/strings/3/shoe_md_ft", "12601")
    page.sees("expected a shoe at or above total depth (12600 ft)")
    page.click("Undo")
    page.click("Undo")
    page.gone("Cannot be evaluated or saved yet")


def test_a_bad_file_is_refused_with_its_faults(page, tmp_path):
    document = demo()
    document["ground"]["pore"][1]["tvd_ft"] = -3
    bad = tmp_path / "bad.json"
    bad.write_text(json.dumps(document))
    page.find("input[type=file]").send_keys(str(bad))
    page.sees("bad.json was not brought in. Nothing was changed.")
    page.sees("Pore pressure 2, TVD: -3; expected at least 0 ft.")
    bad.write_text(json.dumps(document)[:200])
    page.find("input[type=file]").send_keys(str(bad))
    page.sees("expected a complete JSON file")
    assert len(page.all("tbody tr")) == 4


def test_working_of_a_headline_number(page):
    page.open(DEMO + "/depths")
    page.strike('[data-working="depths/2/kick_tolerance"]')
    page.sees("Kick tolerance: the lesser of the two volumes")
    panel = page.find('section[aria-label="Working"]')
    assert [s.get_attribute("data-formula") for s in panel.find_elements(By.CSS_SELECTOR, "[data-formula]")][
        -1
    ] == "lesser_kick_volume"
    assert "27.468" in panel.text
    page.type("/strings/2/shoe_md_ft", "7200")
    page.until(lambda: "27.468" not in page.find('section[aria-label="Working"]').text, "the working follows the edit")
    page.click("Close the working")
    page.gone("Kick tolerance: the lesser")


def test_metric_entry_comes_back_as_typed(page):
    page.open(DEMO + "/depths")
    page.click("ft · ppg · psi")
    page.click("Metric")
    page.keys(Keys.ESCAPE)
    page.sees("2,133.6 m")
    page.type("/strings/2/shoe_md_ft", "1500")
    page.until(lambda: page.shoe(2) == "1,500.0 m", "metres")
    assert page.value("/strings/2/shoe_md_ft") == "1,500"
    page.saved(2)
    page.open(DEMO + "/depths")
    page.until(lambda: page.value("/strings/2/shoe_md_ft") == "1,500", "still 1,500 after a reload")


def test_an_edit_made_while_the_server_is_away_is_sent_when_it_returns(page):
    page.open(DEMO + "/depths")
    page.shoe(2)
    page.cut_off()
    page.type("/strings/2/shoe_md_ft", "7400")
    page.sees("server not reached; edits are kept here")
    page.reach_again()
    page.saved(2)
    page.until(lambda: page.shoe(2) == "7,400 ft", "evaluated again")


def test_program_sheet_is_linked_and_a_finding_leads_to_its_place(page):
    page.open(DEMO + "/depths")
    link = page.until(
        lambda: page.driver.find_element(By.PARTIAL_LINK_TEXT, "Program sheet").get_attribute("href"), "the sheet"
    )
    kind = page.run("return fetch(arguments[0]).then(r => r.headers.get('Content-Type'))", link)
    assert kind == "application/pdf"
    page.strike(lambda: next((b for b in page.all('[data-finding="stop"] button') if "cement" in b.text), None))
    page.until(lambda: "/cement" in page.driver.current_url, "the step of the finding")
    lit = page.until(lambda: page.run("return document.activeElement.dataset.place"), "the place of the finding")
    assert lit == "/strings/2/cement/top_md_ft"
    page.open(DEMO + "/ground")
    page.click("Site")
    page.type("/site/h2s_ppm", Keys.DELETE)
    page.open(DEMO + "/pipe")
    page.click("Grades are judged as sweet")
    page.until(lambda: "/ground" in page.driver.current_url, "where H2S is given")
    lit = page.until(lambda: page.run("return document.activeElement.dataset.place"), "the field that mends it")
    assert lit == "/site/h2s_ppm"


@pytest.mark.parametrize("dark", [False, True])
def test_no_accessibility_violation_on_any_view(page, dark):
    page.prefer(dark=dark)
    found = {}
    more = (EMPTY + "/depths", DEMO + "/history", DEMO + "/beside/1", "/formulas", "/formulas/von_mises")
    for path in ("/", *(f"{DEMO}/{step}" for step in STEPS), *more):
        page.open(path)
        page.find("table, section, aside")
        page.until(lambda: "Loading" not in page.text and "Evaluating" not in page.text, "the view")
        # what is dark differs in its colours alone
        violations = page.violations("color-contrast") if dark else page.violations()
        if violations:
            found[path] = violations
    assert found == {}
    assert page.run("return document.documentElement.scrollWidth <= window.innerWidth"), "no sideways scrolling at 1280"


def test_zoom_pan_and_fit_move_every_track_together(page):
    page.open(DEMO + "/depths")
    ticks = (
        "return [...document.querySelectorAll('[data-testid=section] text')]"
        ".map(t => t.textContent).filter(t => /,000$/.test(t))"
    )
    y = "return +document.querySelector('[data-shoe=\"2\"] line').getAttribute('y2')"
    page.shoe(2)
    before, at = page.run(ticks), page.run(y)
    paper = page.find("svg.on-depth[aria-label^='Mud window']")
    scroll = (
        "arguments[0].dispatchEvent(new WheelEvent('wheel',"
        " {deltaY: -500, clientY: arguments[1], bubbles: true, cancelable: true}))"
    )
    page.run(scroll, paper, at + paper.rect["y"])
    page.until(lambda: page.run(ticks) != before, "other ticks")
    assert page.run(y) == pytest.approx(at, abs=1.5), "the depth under the pointer stays where it is"
    ActionChains(page.driver).move_to_element(paper).click_and_hold().move_by_offset(0, 40).release().perform()
    page.until(lambda: abs(page.run(y) - at - 40) < 1.5, "the paper follows the pointer")
    page.keys("0")
    page.until(lambda: page.run(ticks) == before, "the whole well again")
    assert "/depths" in page.driver.current_url, "a pan is no click on a zone"


def test_palette_keys_and_the_list_of_keys(page):
    page.open(DEMO + "/depths")
    page.shoe(2)
    page.keys("7")
    page.until(lambda: "/cement" in page.driver.current_url, "step 7")
    page.keys("k", held=Keys.CONTROL)
    page.find("[cmdk-input]").send_keys("wellh" + Keys.ENTER)
    page.until(lambda: "/wellhead" in page.driver.current_url, "the palette's first match")
    page.keys("?")
    page.sees("Single keys without Ctrl")
    assert page.violations() == []
    page.strike("[role=dialog] input[type=checkbox]")
    page.keys(Keys.ESCAPE)
    page.gone("Single keys without Ctrl")
    page.keys("1")
    assert "/wellhead" in page.driver.current_url, "single keys are off"


def test_units_are_understood_where_they_are_typed(page):
    page.open(DEMO + "/depths")
    page.type("/strings/2/shoe_md_ft", "2100 m")
    page.until(lambda: page.shoe(2) == "6,890 ft", "metres in a field of feet")
    page.open(DEMO + "/mud")
    page.type("/strings/2/mud_ppg", "1.10 sg")
    page.until(lambda: page.value("/strings/2/mud_ppg") == "9.18", "specific gravity in a field of ppg")


def test_a_formula_is_found_tried_and_refused(page):
    page.open("/formulas")
    page.find("[aria-label='Search the formulas']").send_keys("weighting up")
    page.sees("No formula of that name")
    page.find("[aria-label='Search the formulas']").send_keys(Keys.CONTROL + "a")
    page.find("[aria-label='Search the formulas']").send_keys("hydrostatic pressure of")
    page.click("Hydrostatic pressure of a fluid column")
    page.until(lambda: page.driver.current_url.endswith("/formulas/hydrostatic_pressure"), "its address")
    page.find("[aria-label='mud weight']").send_keys("10.4")
    page.click("Work it out")
    page.sees("a number is needed")
    page.find("[aria-label='true vertical depth from the rig floor']").send_keys("8650; 1000")
    page.click("Work it out")
    page.sees("4,673.247; 540.2597")
    page.find("[aria-label='true vertical depth from the rig floor']").send_keys("; -1")
    page.click("Work it out")
    page.sees("expected >= 0")
    assert page.violations() == []
