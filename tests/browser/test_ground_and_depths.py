"""Schools and freedom, what frees a program, planned paths, estimates, the mud's cards: worked as an engineer would."""

from selenium.webdriver import Keys

from tests.browser.test_editing import wait_saved

DEMO, EMPTY, DEEP = "/designs/2", "/designs/1", "/designs/4"


def test_both_schools_and_the_freedom_between_them(page):
    page.open(DEMO + "/depths")
    page.click("Methods")
    page.sees("free 6,840 to 8,900 ft")
    page.sees("Kick tolerance drilling deeper would be under 50.0 bbl.")
    assert page.violations() == []
    page.click("Start from top down")
    page.until(lambda: page.shoe(2) == "8,900 ft", "the top-down program")
    wait_saved(page)
    assert [s["shoe_md_ft"] for s in page.document(2)["strings"]] == [110, 3350, 8900, 12_600]
    page.click("Undo")
    page.until(lambda: page.shoe(2) == "7,000 ft", "one undo")


def test_where_no_program_exists_the_least_change_frees_one(page):
    page.open(EMPTY + "/policy")
    page.type("/policy/depths/open_hole_limit_ft", "1000")
    page.click("Depths")
    page.click("Methods")
    page.sees("No program exists.")
    page.until(lambda: page.all("[data-relief]"), "what frees one")
    page.strike("[data-relief]")
    page.gone("No program exists.")
    page.until(lambda: page.all("[data-shoe]"), "a program")


def test_a_path_is_planned_and_an_impossible_one_refused(page):
    page.open(EMPTY + "/ground")
    page.click("Path")
    page.click("Plan a path")
    for label, text in (("Target TVD", "12000"), ("Target departure", "4000 ft"), ("Kick-off", "11900")):
        field = page.find(f"[aria-label='{label}']")
        field.send_keys(Keys.CONTROL + "a")
        field.send_keys(text)
    page.click("Replace the stations")
    page.sees("no angle up to 90° reaches the target")
    field = page.find("[aria-label='Kick-off']")
    field.send_keys(Keys.CONTROL + "a")
    field.send_keys("2500" + Keys.ENTER)
    page.sees("Departure 4,000 ft")
    page.find("svg[aria-label='Plan of the path']")
    wait_saved(page)
    stations = page.document(1)["trajectory"]["stations"]
    assert stations[1]["md_ft"] == 2500.0
    assert page.violations() == []


def test_fracture_is_estimated_from_overburden(page):
    page.open(EMPTY + "/ground")
    page.click("Fracture")
    page.click("Estimate from overburden")
    page.click("Replace the fracture profile")
    page.sees("fewer than two points")
    page.click("Leave it")
    page.click("Overburden")
    for i, (depth, emw) in enumerate((("30", "17"), ("12600", "19"))):
        page.click("Add")
        page.type(f"/ground/overburden/{i}/emw_ppg", emw)
        page.type(f"/ground/overburden/{i}/tvd_ft", depth)
    page.click("Fracture")
    page.click("Estimate from overburden")
    page.click("Replace the fracture profile")
    # 8.4 + (17 − 8.4)·0.4/0.6 = 14.1333
    page.until(lambda: page.value("/ground/fracture/0/emw_ppg") == "14.1333", "Eaton at 30 ft")
    page.click("Flags")
    page.sees("No shoe between 3,350 ft and 4,170 ft TVD.")


def test_the_mud_moving_and_the_window_as_pressures(page):
    page.open(DEMO + "/mud")
    page.sees("ECD at bottom")
    before = page.find("[data-testid=ecd-3]").text
    page.type("/strings/3/flow_gpm", "600")
    page.until(lambda: page.find("[data-testid=ecd-3]").text != before, "the ECD follows the pump")
    page.strike('[data-working="mud/3/ecd"]')
    page.sees("Friction per foot of annulus, Bingham plastic")
    page.strike("button[title='Show the window as pressures']")
    page.sees("pressure, psi")
    assert page.violations() == []
    page.open(DEEP + "/mud")
    page.sees("Before the riser is on")
    page.sees("The riser margin cannot be held")


def test_a_decided_shoe_says_why_it_stands_there_and_when_it_leaves_its_freedom(page):
    page.open("/designs/2/depths")
    why = page.find('[data-testid="why-2"]')
    page.until(lambda: why.text.startswith("Free: 6,840 to 8,900 ft"), "the freedom of the 9 5/8 in shoe")
    page.strike(lambda: why)
    page.sees("Shallower, kick tolerance:")
    page.sees("Deeper, kick tolerance:")
    page.type("/strings/2/shoe_md_ft", "9100")
    page.until(lambda: why.text.startswith("Deeper than its freedom"), "outside its freedom")


def test_mud_is_raised_in_steps_on_the_way_down(page):
    page.open("/designs/2/mud")
    page.find("summary")
    page.strike(lambda: [summary for summary in page.all("summary") if summary.text == "In steps by depth"][-1])
    page.strike(lambda: [add for add in page.all("button") if add.text == "Add" and add.is_displayed()][-1])
    page.paste("/strings/3/mud_steps/0/to_md_ft", "8900\t10.0\n10800\t12.8")
    page.sees("to 8,900 ft: 10.00 ppg in")
    page.until(lambda: page.find("[role=status]").get_attribute("data-save") == "saved", "saved")
    steps = page.document(2)["strings"][3]["mud_steps"]
    assert [(s["to_md_ft"], s["mud_ppg"]) for s in steps] == [(8900.0, 10.0), (10_800.0, 12.8)]


def test_a_string_is_hung_as_a_liner(page):
    page.open(DEMO + "/depths")
    page.shoe(3)
    page.strike(lambda: page.driver.find_elements("xpath", '//summary[contains(., "As a liner")]')[-1])
    page.sees("211,200 lbf of steel")
    page.strike(lambda: page.driver.find_elements("xpath", '//button[contains(., "Hang it as a liner")]')[-1])
    page.find('[data-grip="liner-3"]')
    wait_saved(page)
    string = page.document(2)["strings"][3]
    assert (string["run"], string["hanger_md_ft"]) == ("liner", 6600.0)
