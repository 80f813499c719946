"""The well at sea in the browser: moved to deeper water, tensioners lost, the conductor jetted short, a disconnect played."""

from selenium.webdriver import Keys

DEEP = "/designs/4"
SET = (
    "const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set;"
    "set.call(arguments[0], arguments[1]); arguments[0].dispatchEvent(new Event('input', {bubbles: true}));"
)


def evaluation(page):
    script = """return fetch('/api/designs/4').then(r => r.json()).then(d => fetch('/api/evaluations', {method: 'POST',
      headers: {'Content-Type': 'application/json'}, body: JSON.stringify({document: d.document})})).then(r => r.json())"""
    return page.run(script)


def told(page):
    """What deeper water changes: joints, hours, tension, bottles, pressure at the wellhead, closing pressure."""
    whole = evaluation(page)
    sea, stacks = whole["sea"], whole["preventers"]["strings"]
    return {
        "joints": sum(row["count"] for row in sea["riser"]["joints"]),
        "hours": sea["riser"]["hours"],
        "tension": sea["riser"]["tensions"][-1]["least_failed_lbf"],
        "bottles": stacks[1]["accumulators"]["bottles_needed"],
        "wellhead": stacks[1]["pressure_psi"],
        "shear": stacks[1]["shear"][0]["needed_psi"],
        "margin": whole["mud"]["strings"][4]["riser"]["margin_ppg"],
    }


def test_the_whole_well_goes_to_deeper_water_by_one_edit_and_back(page):
    page.open(DEEP + "/ground?tab=site")
    page.sees("Move the well to other water")
    before = told(page)
    page.click("Move the well to other water…")
    field = page.named("New water depth")
    field.send_keys(Keys.CONTROL, "a")
    field.send_keys("-5", Keys.ENTER)
    page.sees("-5; expected at least 0 ft")
    assert page.document(4)["site"]["water_depth_ft"] == 4350
    field.send_keys(Keys.CONTROL, "a")
    field.send_keys("14,999", Keys.ENTER)
    page.until(lambda: page.document(4)["site"]["water_depth_ft"] == 14_999, "moved, as far as a field goes")
    page.click("Undo")
    page.until(lambda: page.document(4)["site"]["water_depth_ft"] == 4350, "back in one step")
    page.click("Move the well to other water…")
    field = page.named("New water depth")
    field.send_keys(Keys.CONTROL, "a")
    field.send_keys("6800", Keys.ENTER)
    page.until(lambda: page.document(4)["site"]["water_depth_ft"] == 6800, "moved")
    assert page.document(4)["strings"][0]["shoe_md_ft"] == 4720 + 2450
    after = told(page)
    assert all(after[key] > before[key] for key in before), (before, after)
    page.find('nav a[href*="/sea"]').click()
    page.strike('[role="tab"][id*="riser"]')
    page.sees("Tension at the ring")
    page.sees(f"{round(after['tension']):,}")


def test_tensioners_are_lost_and_the_riser_is_told(page):
    page.open(DEEP + "/sea?tab=riser")
    page.sees("2 of 12 tensioners lost")
    page.type("/sea/riser/setting_lbf", "920000")
    page.gone("goes into compression")
    page.type("/sea/riser/failed", "4")
    page.sees("4 of 12 tensioners lost")
    page.sees("The riser goes into compression at its foot")
    page.click("Set 1,1")
    page.gone("goes into compression")
    page.until(lambda: page.document(4)["sea"]["riser"]["setting_lbf"] > 1_000_000, "set")
    page.type("/sea/riser/failed", "12")
    page.sees("nothing holds the riser")


def test_the_conductor_jetted_short_no_longer_carries_the_second_string(page):
    page.open(DEEP + "/sea?tab=conductor")
    page.sees("Second string landed")
    page.gone("Little to spare")
    page.find('nav a[href*="/depths"]').click()
    page.type("/strings/0/shoe_md_ft", "4690")
    page.sees("Little to spare: second string landed, cement not set")
    page.click("Hold ")
    page.gone("Little to spare")
    page.until(lambda: page.document(4)["sea"]["conductor"]["held_lbf"] > 0, "held by the landing string")


def test_soil_is_pasted_and_stands_in_order_of_depth(page):
    page.open(DEEP + "/sea?tab=conductor")
    page.sees("Soil strength")
    page.paste("/sea/soil/0/below_mudline_ft", "0\t40\t26\n80\tsoft\t31")
    page.sees("soft")
    assert page.document(4)["sea"]["soil"][1]["below_mudline_ft"] == 60, "nothing of a block with a word in it is taken"
    page.paste("/sea/soil/0/below_mudline_ft", "0\t40\t26\n160\t1400\t33\n80\t700\t31\n330\t3100\t40")
    page.until(
        lambda: [p["below_mudline_ft"] for p in page.document(4)["sea"]["soil"]] == [0, 80, 160, 330], "in order"
    )


def test_a_disconnect_is_played_with_a_tool_joint_across_the_shears(page):
    page.open(DEEP + "/sea?tab=disconnect")
    page.sees("Power lost")
    page.click("Play")
    page.until(lambda: "drifting" in page.find("output").text and "0.0 min" not in page.find("output").text, "it plays")
    page.click("Pause")
    slider = page.named("Time after power is lost")
    page.run(SET, slider, "740")
    page.until(lambda: "Close the shear rams" in page.find("output").text, "the step at the hand")
    page.run(SET, slider, "770")
    page.sees("cut and sealed by blind shear rams")
    options = page.named("Across the shear rams").find_elements("tag name", "option")
    joint = next(o for o in options if "tool joint" in o.text)
    joint.click()
    page.sees("not cut; the riser package cannot leave")
    page.click("eddy current")
    page.run(SET, page.named("Time after power is lost"), "60")
    page.until(lambda: "Stop, pick up" in page.find("output").text, "there is no time before")


def test_a_sealed_annulus_gets_a_rupture_disk(page):
    page.open(DEEP + "/sea?tab=annuli")
    page.type("/site/flowing_wellhead_f", "230")
    page.sees("Production heats the sealed annulus")
    page.click("Fit a rupture disk")
    page.gone("Production heats the sealed annulus")
    page.until(lambda: [row["relief"] for row in page.document(4)["sea"]["annuli"]] == ["rupture disk"], "fitted")
    assert page.value("/sea/annuli/0/disk_psi") != ""


def test_a_land_well_has_no_step_at_sea(page):
    page.open("/designs/2/ground")
    page.sees("Findings")
    page.until(lambda: page.all('nav a[href*="/ground"]'), "the path")
    page.until(lambda: not page.all('nav a[href*="/sea"]'), "no step at sea")
    page.open("/designs/2/sea")
    page.sees("This well stands on land")


def test_barriers_are_counted_and_a_test_is_read_at_the_rig(page):
    """Three barriers asked: two stand; 11.9 ppg in the line to the sea floor takes 2,742 psi from what the gauge reads."""
    page.open(DEEP + "/sea?tab=disconnect")
    page.sees("blind shear rams, storm plug")
    page.type("/policy/sea/barriers", "3")
    page.sees("2 of 3 barriers would stand without the riser: blind shear rams, storm plug.")
    page.open(DEEP + "/pipe?string=4")
    page.sees("Wear, tests, own cases")
    page.run("document.querySelectorAll('details').forEach(d => { d.open = true })")
    page.type("/strings/3/test_psi", "5000")
    page.sees(f"{5000 - 12 / 231 * 11.9 * 4435:,.0f}")
    page.sees("Tested, read at the rig floor")
