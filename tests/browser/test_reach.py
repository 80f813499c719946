"""Reach: small windows, touch, the focus, what is told to a screen reader."""

import pytest
from selenium.webdriver import ActionChains, Keys
from selenium.webdriver.common.actions.action_builder import ActionBuilder
from selenium.webdriver.common.actions.pointer_input import PointerInput

from tests.browser.test_workbench import STEPS

DEMO = "/designs/2"


@pytest.fixture
def window(page):
    """Sets the size of the page in CSS pixels; the usual one afterwards."""

    def of(width, height):
        usual = {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": False}
        page.driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", usual)

    yield of
    page.driver.execute_cdp_cmd("Emulation.clearDeviceMetricsOverride", {})


def focused(page):
    return page.run("return [document.activeElement.tagName, document.activeElement.id]")


@pytest.mark.parametrize("width", [1024, 640])
def test_a_narrow_window_needs_no_sideways_scrolling(page, window, width):
    """1,024 px, and 1,280 px at 200 % zoom."""
    window(width, 500)
    for address in ("/", "/formulas", DEMO + "/history", *(f"{DEMO}/{step}" for step in STEPS)):
        page.open(address)
        page.find("h1, h2")
        if address.startswith(DEMO) and "history" not in address:
            page.find("#step-fields")
        assert page.run("return document.documentElement.scrollWidth - innerWidth") <= 0, address
    page.click("Findings")
    page.until(lambda: focused(page)[1] == "findings", "the findings")
    if width == 1024:
        page.keys(Keys.ESCAPE)
        page.until(lambda: not page.all("#findings"), "the drawer is closed")
        page.until(lambda: focused(page)[0] != "BODY", "the focus is kept")


def test_a_shoe_is_dragged_by_touch(page):
    page.open(DEMO + "/depths")
    shoe = page.find('[data-shoe="2"] rect')
    actions = ActionBuilder(page.driver, mouse=PointerInput("touch", "finger"))
    actions.pointer_action.move_to(shoe).pointer_down().move_to(shoe, 0, 20).move_to(shoe, 0, 40).pointer_up()
    actions.perform()
    page.saved(2)
    assert page.document(2)["strings"][2]["shoe_md_ft"] > 7100


def test_what_an_edit_brings_and_clears_is_told_and_the_focus_stays(page):
    page.open(DEMO + "/mud")
    told = lambda: page.find('[data-testid="announced"]').get_attribute("textContent").replace("\u00a0", " ")  # noqa: E731
    page.find("[data-remedy]")
    assert told() == ""
    page.type("/strings/2/mud_ppg", "8.5")
    page.until(lambda: "New findings:" in told() and "stop, Mud: 12 1/4 in hole" in told(), "told")
    remedy = page.find("[data-remedy]")
    page.run("arguments[0].focus()", remedy)
    page.keys(Keys.ENTER)
    page.until(lambda: "Cleared:" in told(), "cleared")
    assert focused(page)[0] != "BODY"
    page.strike('[data-working="mud/2/lower"]')
    close = page.find('[aria-label="Close the working"]')
    page.run("arguments[0].focus()", close)
    page.keys(Keys.ENTER)
    page.until(lambda: not page.all('[aria-label="Close the working"]'), "closed")
    page.until(lambda: focused(page)[0] != "BODY", "kept")


def test_everything_pressed_is_24_px_or_has_that_room(page):
    script = (
        "const done = arguments[arguments.length - 1]; axe.run({runOnly: {type: 'rule', values: ['target-size']}})"
        ".then((r) => done(r.violations.flatMap((v) => v.nodes.map((n) => n.html.slice(0, 120)))))"
    )
    for address in ("/", "/formulas", *(f"{DEMO}/{step}" for step in STEPS)):
        page.open(address)
        page.find("h1, h2")
        page.violations()  # loads the checker
        assert page.driver.execute_async_script(script) == [], address
    page.find('[data-grip="cement-2"] rect')
    grip = page.run(
        "const b = document.querySelector('[data-grip=\"cement-2\"] rect').getBoundingClientRect(); return [b.width, b.height]"
    )
    assert min(grip) >= 24
    ActionChains(page.driver).reset_actions()
