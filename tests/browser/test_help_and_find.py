"""Finding one's way: the palette, help, what words mean, addresses of views, pictures kept as files."""

import xml.etree.ElementTree as ET

import pytest
from selenium.webdriver import ActionChains, Keys

DEMO = "/designs/2"


def find(page, words):
    page.keys("k", held=Keys.CONTROL)
    page.find("[cmdk-input]").send_keys(words)


@pytest.mark.parametrize(
    ("typed", "title", "address"),
    [
        ("trip margin", "Policy, Mud, Trip margin", "/designs/2/policy?string=2"),
        ("leak-off", "Ground: Leak-off", "/designs/2/ground?string=2&tab=leak_off_tests"),
        ("pike", "Pike limestone", "/designs/2/ground?string=2&tab=zones"),
        ("barlow", "Internal yield pressure", "/formulas/"),
        ("methods", "Depths: Methods", "/designs/2/depths?string=2&tab=schools"),
        ("own pipes", "Pipe: Own pipes", "/designs/2/pipe?string=2&tab=own"),
    ],
)
def test_the_palette_finds_fields_tabs_zones_and_formulas(page, typed, title, address):
    page.open(DEMO + "/depths")
    page.find("[data-shoe]")
    if typed == "barlow":
        title = page.run(
            "return fetch('/api/formulas').then((r) => r.json()).then((all) => (all.formulas ?? all)[0].title)"
        )
        typed = title
    find(page, typed)
    entry = page.until(lambda: next(e for e in page.all("[cmdk-item]") if e.text.startswith(title)), title)
    page.strike(lambda: entry)
    page.until(lambda: address in page.driver.current_url, address)
    if "policy" in address:
        page.until(
            lambda: page.run("return document.activeElement.dataset.place") == "/policy/mud/trip_margin_ppg",
            "its field",
        )


def test_the_palette_finds_files_and_help(page):
    page.open(DEMO + "/depths")
    page.find("[data-shoe]")
    find(page, "csv")
    page.until(lambda: [e for e in page.all("[cmdk-item]") if e.text == "Pore pressure as CSV"], "an export")
    page.keys(Keys.ESCAPE)
    find(page, "start guide")
    page.keys(Keys.ENTER)
    page.until(lambda: page.all('[role=dialog] [aria-label="Start guide"]'), "help")
    page.click("Terms")
    page.find('[aria-label="Find a term"]').send_keys("maasp")
    page.sees("maximum allowable annular surface pressure")
    assert page.violations() == []


def test_an_empty_well_says_where_to_begin(page):
    page.open("/")
    page.click("New well")
    page.sees("Where to begin")
    assert len(page.all('[aria-label="Start guide"] li')) == 7
    assert not page.all('[aria-label="Start guide"] [aria-label="given"]')
    page.click("Production casing.")
    page.until(
        lambda: page.run("return document.activeElement.dataset.place") == "/policy/sizes/production_od_in", "policy"
    )
    page.driver.back()
    page.click("Pore pressure.")
    page.find('[data-place="/ground/pore"]')
    page.paste("/ground/pore", "0\t8.6\n10000\t9.5")
    page.until(lambda: len(page.all('[aria-label="Start guide"] [aria-label="given"]')) == 1, "ticked off")


def test_a_view_is_opened_by_its_address(page):
    page.open(DEMO + "/pipe?tab=strings&string=3")
    page.until(
        lambda: page.all('[aria-label="9 5/8 in load cases"], [aria-label="9\u00a05/8\u00a0in load cases"]'), "string 3"
    )
    page.open(DEMO + "/ground?tab=fracture")
    page.until(lambda: page.find("[role=grid]").get_attribute("aria-label") == "Fracture", "the tab")
    page.open(DEMO + "/ground?tab=nonsense&string=99")
    page.until(lambda: page.find("[role=grid]").get_attribute("aria-label") == "Zone", "the usual tab")


def test_words_are_explained_and_pictures_are_kept(page):
    page.open(DEMO + "/depths")
    label = page.until(lambda: page.driver.find_element("xpath", "//dt//span[text()='MAASP']"), "MAASP")
    ActionChains(page.driver).move_to_element(label).perform()
    page.until(lambda: "maximum allowable annular surface pressure" in page.text, "its meaning")
    page.run(
        "window.kept = []; URL.createObjectURL = (blob) => { blob.text().then((t) => window.kept.push(t)); return 'data:,' };"
        "HTMLAnchorElement.prototype.click = function () { window.kept.push(this.download + ' ' + this.href.slice(0, 22)) }"
    )
    page.strike('[aria-label="Mud window as a table"]')
    page.strike('[aria-label="Mud window as SVG"]')
    page.until(lambda: len(page.run("return window.kept")) == 2, "kept")
    name, svg = sorted(page.run("return window.kept"), key=len)
    assert name.startswith("mud-window.svg")
    drawn = ET.fromstring(svg)
    texts = ["".join(t.itertext()) for t in drawn.iter("{http://www.w3.org/2000/svg}text")]
    assert {"Mud window", "fracture", "9.20"} <= set(texts)
    assert "var(--" not in svg
    page.strike('[aria-label="Mud window as PNG"]')
    page.until(lambda: "mud-window.png data:image/png;base64," in " ".join(page.run("return window.kept")), "as pixels")
