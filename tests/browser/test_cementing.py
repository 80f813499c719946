"""Cementing: a column that breaks the loss zone is cemented in two stages; the job is scrubbed and read; fluids and rates."""

import re

from selenium.webdriver import ActionChains, Keys

DEMO = "/designs/2/cement?string=3&tab="
PATH = "/strings/2/cement"
MOMENT = "input[aria-label='Moment of the job']"


def go_to(page, moment):
    page.run(
        "const i = arguments[0];"
        "Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(i, arguments[1]);"
        "i.dispatchEvent(new Event('input', {bubbles: true}))",
        page.find(MOMENT),
        str(moment),
    )


def read_at(page, share):
    """The cursor at a share of the fluids track's height: its depth by the reading strip, and what the track reads there."""
    track = page.find("svg[aria-label^='Where each fluid']")
    ActionChains(page.driver).move_to_element_with_offset(
        track, 0, round((share - 0.5) * track.size["height"])
    ).perform()
    found = page.until(
        lambda: next((t.text for t in page.all("svg[data-passing] text") if t.text.startswith("in ")), None),
        "a reading",
    )
    depth = re.search(r"MD\s*([\d,]+)", page.find("[data-testid=reading]").text)[1]
    return [float(n.replace(",", "")) for n in (depth, *re.findall(r"[\d,]+", found))]


def test_the_loss_zone_that_breaks_is_cemented_in_two_stages_and_holds_at_every_moment(page):
    page.open(DEMO + "job")
    page.sees("In Pike limestone at 4,120 ft the cement column reaches 13.09 ppg")
    page.sees("Nearest to fracture")
    page.click("Cement in two stages, stage collar at")
    page.gone("the cement column reaches 13.09 ppg")
    page.sees("Second stage")
    page.saved(2)
    assert page.document(2)["strings"][2]["cement"]["stage_collar_md_ft"] > 2000
    for stage in ("First stage", "Second stage"):
        page.click(stage)
        page.sees("Top plug lands")
        page.gone("the rock breaks at")
        lines = page.find("section[aria-label='The job in numbers']").text
        reached, breaks = re.search(r"([\d.]+)\s*ppg\s*at\s*[\d,]+\s*ft,\s*breaks\s*at\s*([\d.]+)", lines).groups()
        assert float(reached) <= float(breaks)
        assert not page.all("section[aria-label='The job in numbers'] .text-brick")
    assert page.violations() == []


def test_a_moment_is_scrubbed_to_and_its_pressures_read(page):
    """Before anything is pumped 9.2 ppg mud stands on both sides: 0.477922 psi/ft, 2,390 psi at 5,000 ft."""
    page.open(DEMO + "job")
    page.sees("What happens")
    go_to(page, 0)
    page.sees("0.0 bbl · 0 min")
    for share in (0.25, 0.45):
        md, inside, outside = read_at(page, share)
        assert md > 1000
        assert abs(inside - 12 / 231 * 9.2 * md) <= 1.0
        assert abs(inside - outside) <= 1.0
    page.click("in free fall")
    level = float(re.search(r"Pipe empty to ([\d,]+)", page.text)[1].replace(",", ""))
    md, inside, outside = read_at(page, 0.2)
    assert 500 < md < level
    assert inside == 0, "nothing stands over the level"
    assert outside > 100
    page.find(MOMENT).send_keys(Keys.END)
    page.sees("188 min")
    page.click("Play")
    page.sees("Pause")
    page.until(lambda: "188 min" not in page.find("output").text, "the job runs")


def test_fluids_are_taken_over_moved_and_rated(page):
    page.open(DEMO + "fluids")
    page.sees("Proposed by policy")
    page.strike(f'[data-place="{PATH}/fluids/0/volume_bbl"]')
    page.keys("40")
    page.keys(Keys.ENTER)
    page.sees("In the order pumped.")
    page.saved(2)
    fluids = page.document(2)["strings"][2]["cement"]["fluids"]
    assert [f["kind"] for f in fluids] == ["spacer", "tail", "displacement"]
    assert fluids[0]["volume_bbl"] == 40
    page.sees("Flushes and spacers pass")
    page.strike(f'[data-place="{PATH}/fluids/0/volume_bbl"]')
    page.keys(Keys.ARROW_DOWN, held=Keys.ALT)
    page.until(lambda: page.document(2)["strings"][2]["cement"]["fluids"][1]["kind"] == "spacer", "moved down")
    page.paste(PATH + "/steps/0/volume_bbl", "Volume (bbl)\tRate (bbl/min)\tStop (min)\n300\t4\t0\n\t7\t0")
    page.until(lambda: len(page.document(2)["strings"][2]["cement"]["steps"]) == 2, "a schedule of one's own")
    page.sees("Steps of pumping whatever fluid is next")
    assert page.violations() == []


def test_strength_and_thickening_say_what_may_be_done_when(page):
    page.open("/designs/2/cement?string=4&tab=placement")
    page.sees("Nipple down, test the casing, drill out")
    page.sees("after 9.0")
    page.type(PATH.replace("2", "3") + "/thickening_minutes", "30")
    page.sees("It thickens after 30.0")
    page.type(PATH.replace("2", "3") + "/thickening_minutes", "250")
    page.gone("It thickens after")
    page.paste(PATH.replace("2", "3") + "/strength/0/after_hours", "After (h)\tStrength (psi)\n6\t50\n5\t500")
    page.sees("no less than before (500 psi)")
    assert page.violations() == []


def test_the_job_is_seen_on_the_wells_own_section(page):
    """The limestone is marked where it breaks and not before it; the strip reads what the fluids track reads."""
    page.open(DEMO + "job")
    page.sees("What happens")
    section = "[data-testid=job-on-section]"
    assert page.all(f"{section} rect")
    page.click("Pike limestone breaks at")
    page.until(lambda: page.all(f"{section} [data-testid=breaks]"), "the rock breaks")
    moment = int(page.find(MOMENT).get_attribute("value"))
    go_to(page, moment - 1)
    page.until(lambda: not page.all(f"{section} [data-testid=breaks]"), "it still holds")
    _, inside, outside = read_at(page, 0.3)
    strip = page.find("[data-testid=reading]").text.replace("\n", " ")
    read = [float(n.replace(",", "")) for n in re.search(r"inside ([\d,]+) psi annulus ([\d,]+) psi", strip).groups()]
    assert read == [inside, outside]
    page.click("TVD")
    page.until(lambda: page.all(f"{section} path"), "along the path too")
    page.click("Placing")
    page.until(lambda: not page.all(section), "the job is looked at no more")
    assert page.violations() == []


def test_a_balanced_plug_is_planned_and_mended(page):
    """Added at total depth, moved up until it breaks the limestone, and shortened by the remedy offered."""
    page.open("/designs/2/cement?tab=plugs")
    page.sees("Loss plug, in the order pumped")
    page.click("Add")
    page.until(lambda: len(page.document(2).get("balanced_plugs", [])) == 2, "a second plug")
    page.sees("Plug 2, in the order pumped")
    for key, depth in (("top", "2010"), ("bottom", "6900")):
        page.strike(f'[data-place="/balanced_plugs/1/{key}_md_ft"]')
        page.keys(depth)
        page.keys(Keys.ENTER)
    page.sees("With the pipe in it the hole at")
    page.click("Set the top of the plug at")
    page.gone("With the pipe in it the hole at")
    page.until(lambda: page.document(2)["balanced_plugs"][1]["top_md_ft"] > 2010, "a shorter plug")
    page.click("Undo")
    page.sees("With the pipe in it the hole at")
    assert page.violations() == []


def test_three_stages_and_a_liners_top_are_followed(page):
    page.open(DEMO + "job")
    page.sees("Nearest to fracture")
    page.open("/designs/2/cement?string=3&tab=slurries")
    page.type(PATH + "/stage_collar_md_ft", "4500")
    page.type(PATH + "/upper_collar_md_ft", "3000")
    page.click("Job in time")
    page.click("Third stage")
    page.sees("Spacer at the stage collar")
    page.open("/designs/3/cement?string=4&tab=job")
    page.sees("Reversing out over the liner top")
    page.sees("Dart releases the wiper plug at the liner top")
    assert page.violations() == []
