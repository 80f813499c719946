"""Drills as a crew plays them: a kick shut in by mouse and by keys, circulated out either way, wrong rams, a broken shoe."""

import pytest
from selenium.webdriver import Keys
from selenium.webdriver.support.select import Select

DRILLS = "/designs/2/drills"
LONGEST_S = 3000


def gauge(page, name):
    """What a gauge reads; None where it has nothing to read."""
    text = page.find(f'[data-gauge="{name}"] dd').text.replace(",", "")
    try:
        return float(text)
    except ValueError:
        return text


def shows(page, name, holds, what):
    page.until(lambda: holds(gauge(page, name)), f"{name}: {what}")


def recorded(page, words, times=1):
    """Until the record of the drill tells it so often."""
    page.until(lambda: page.find('[aria-label="Record of the drill"]').text.count(words) >= times, words)


def at_speed(page, times):
    Select(page.named("Speed")).select_by_value(str(times))


def clock(page, runs):
    page.click("Start the clock" if runs else "Stop the clock")


def drill_of(page):
    return (
        page.run("return performance.getEntriesByType('resource').map((e) => e.name).join(' ')")
        .split("/api/drills/")[-1]
        .split("/")[0]
    )


def forward(page, seconds):
    """Let the drill's clock go on without watching it, as 60 times real time would in a while."""
    ask = (
        "const [drill, seconds, done] = arguments;"
        "const api = (path, body) => fetch('/api/drills/' + drill + path, body && {method: 'POST', body: JSON.stringify(body),"
        " headers: {'Content-Type': 'application/json'}}).then((r) => r.json());"
        "api('').then((v) => api('/steps', {to_s: v.state.clock_s + seconds})).then((v) => done(v.state.panel.clock_s))"
    )
    for part in range(0, seconds, LONGEST_S):
        page.driver.execute_async_script(ask, drill_of(page), min(LONGEST_S, seconds - part))


def start(page, title):
    page.sees("Scene from a file")
    page.type("drill/seed", "7")
    page.click(f"Start: {title}")
    page.find('[data-testid="panel"] [data-gauge="gain"]')


def kicks(page, gain=2.5):
    """At full speed until the pits tell it; then the clock stands, for talking."""
    at_speed(page, 60)
    clock(page, True)
    shows(page, "gain", lambda bbl: bbl > gain, "a gain")
    clock(page, False)
    at_speed(page, 10)


def rule(page, key):
    return page.find(f'[data-rule="{key}"]')


def ended(page):
    page.click("End and debrief")
    page.find('[data-testid="score"]')
    return {li.get_attribute("data-rule"): float(li.get_attribute("data-credit")) for li in page.all("[data-rule]")}


def shut_in_by_mouse(page):
    kicks(page)
    page.click("Pick up, space out")
    clock(page, True)
    shows(page, "bit", lambda ft: ft < gauge(page, "hole") - 14, "picked up")
    shows(page, "moving", lambda told: told == "still", "still")
    page.click("Off")
    shows(page, "spm", lambda spm: spm == 0, "off")
    page.click("Flow check")
    page.strike('[data-told="annular open"]')
    page.find('[data-told="annular closed"]')
    page.strike('[data-valve="choke line"]')
    shows(page, "casing", lambda psi: psi > 50, "pressure")
    clock(page, False)
    forward(page, 420)
    page.click("Flow check")
    recorded(page, "Flow check", 2)  # the gauges are read as they stand now
    pipe, casing, gain = (gauge(page, name) for name in ("pipe", "casing", "gain"))
    for place, read in (("sidpp", pipe), ("sicp", casing), ("gain", gain)):
        page.type(f"drill/{place}", f"{read:g}", enter=False)
    page.click("Record")
    recorded(page, "Recorded, drill pipe")
    return pipe, casing, gain


def test_a_kick_is_shut_in_by_mouse_and_its_score_read(page):
    page.open("/designs/2/ground")
    page.click("Drills")  # two clicks from the design
    page.sees("Scene from a file")
    assert page.violations() == []
    start(page, "Kick while drilling")
    assert page.violations() == []
    assert page.run("return document.documentElement.scrollHeight <= innerHeight")
    shut_in_by_mouse(page)
    credits = ended(page)
    assert credits == dict.fromkeys(credits, 1.0)
    assert page.find('[data-testid="score"]').text == "100 %"
    assert page.violations() == []
    page.click("Back to drills")
    page.click("Scores")
    page.until(lambda: "100" in [td.text for td in page.all("main td")], "the score kept")


def test_a_kick_is_shut_in_by_keys_alone(page):
    page.open(f"{DRILLS}?tab=rehearse")
    page.sees("Scene from a file")
    page.type("drill/seed", "7")
    page.named("Start: Kick while drilling").send_keys(Keys.ENTER)
    page.find('[data-testid="panel"] [data-gauge="gain"]')
    at_speed(page, 60)
    page.keys(Keys.SPACE)
    shows(page, "gain", lambda bbl: bbl > 2.5, "a gain")
    page.keys(Keys.SPACE)
    page.keys(",,")
    assert page.value_of("Speed") == "10"
    page.keys("u")
    recorded(page, "Pick up and space out")
    page.keys(Keys.SPACE)
    shows(page, "bit", lambda ft: ft < gauge(page, "hole") - 14, "picked up")
    shows(page, "moving", lambda told: told == "still", "still")
    page.keys("o")
    shows(page, "spm", lambda spm: spm == 0, "off")
    page.keys("f")
    recorded(page, "Flow check")
    page.keys("1")
    page.find('[data-told="annular closed"]')
    page.keys("c")
    shows(page, "casing", lambda psi: psi > 50, "pressure")
    page.keys(Keys.SPACE)
    forward(page, 420)
    page.keys("f")
    recorded(page, "Flow check", 2)
    read = [f"{gauge(page, name):g}" for name in ("pipe", "casing", "gain")]
    page.keys("r")
    page.until(lambda: page.run("return document.activeElement.dataset.place") == "drill/sidpp", "the record")
    for text in read:
        page.keys(text + Keys.TAB)
    page.keys(Keys.ENTER)
    recorded(page, "Recorded, drill pipe")
    page.run("[...document.querySelectorAll('button')].find((b) => b.textContent.includes('End and debrief')).focus()")
    page.keys(Keys.ENTER)
    assert page.find('[data-testid="score"]').text == "100 %"


def hold(page, psi):
    page.type("drill/holds", f"{psi:.0f}")


def pumps_up(page):
    """Casing pressure held while the pumps come up to the slow rate."""
    page.click("Hold casing")
    page.click("Slow, 30")
    forward(page, 60)


def pumps_down(page):
    page.click("Hold casing")
    page.click("Off")
    forward(page, 60)
    page.run(
        "[...document.querySelectorAll('[aria-label^=\"Choke\"] button')].find((b) => b.textContent.startsWith('Close')).click()"
    )
    forward(page, 90)
    page.click("Flow check")


def typed_mud(page, ppg):
    page.type("drill/mud", f"{ppg:.2f}")
    shows(page, "mud", lambda held: abs(held - ppg) < 0.006, "lined up")


STRING_BBL, AROUND_BBL, RATE_BPM = 51.0, 345.0, 30 * 0.0982
"""Of the hole at 3,000 ft and the pumps at the slow rate."""


@pytest.mark.parametrize("goal", ["driller's method", "wait and weight"])
def test_a_kick_is_circulated_out_by_mouse(page, goal):
    page.open(DRILLS)
    page.choose("Hole", "s3")
    page.type("drill/depth", "3000")
    page.choose("To do", goal)
    start(page, "Kick while drilling")
    pipe, *_ = shut_in_by_mouse(page)
    kill = 9.2 + pipe / (12 / 231 * 3000) + 0.06
    down, around = (60 * bbl / RATE_BPM for bbl in (STRING_BBL, AROUND_BBL))
    if goal == "driller's method":
        pumps_up(page)
        page.click("Hold drill pipe")
        hold(page, 215 + pipe + 40)
        forward(page, int(1.3 * around))
        pumps_down(page)
        assert abs(gauge(page, "casing") - gauge(page, "pipe")) < 40, "the influx is out"
        typed_mud(page, kill)
        pumps_up(page)
        forward(page, int(1.1 * down))
        page.click("Hold drill pipe")
        forward(page, int(1.3 * around))
    else:
        typed_mud(page, kill)
        pumps_up(page)
        page.click("Hold drill pipe")
        final = 215 * kill / 9.2
        for share in (0.0, 0.2, 0.4, 0.6, 0.8, 1.0):
            hold(page, 215 + pipe + (final - 215 - pipe) * share + 50)
            forward(page, int(0.2 * down))
        forward(page, int(1.4 * around))
    pumps_down(page)
    assert gauge(page, "casing") < 40
    credits = ended(page)
    assert {k for k, credit in credits.items() if credit < 1} == set()
    page.sees("one bubble")


def test_a_kill_sheet_of_what_was_read_and_of_nonsense(page):
    page.open("/designs/3/drills?tab=sheet")
    page.type("kill/SIDPP", "310")
    page.type("kill/SICP", "470")
    page.until(lambda: page.find('[data-working$="/icp"]').text == "1,000 psi", "690 psi and 310 psi")
    page.find('[data-working$="/second"]').click()
    page.sees("310")
    assert page.violations() == []
    for place, typed, said in (
        ("kill/Depth", "20000", "Depth: 20,000; expected a depth in this hole, over 7,500 to 11,744 ft"),
        ("kill/SIDPP", "-50", "SIDPP: -50; expected at least 0 psi"),
    ):
        page.open("/designs/3/drills?tab=sheet")
        page.type(place, typed)
        page.sees(said)
        assert page.all('[data-form="kill-sheet"] ~ * [data-working]') == [], "no number of another sheet"


def packer(page):
    return page.find('[aria-label="Stack"] svg path[fill^="var(--gold)"]').get_attribute("d")


def test_elements_move_unless_less_motion_is_wanted(page):
    page.open(DRILLS)
    start(page, "Kick while drilling")
    at_rest = packer(page)
    for wanted in ("no-preference", "reduce"):
        page.driver.execute_cdp_cmd(
            "Emulation.setEmulatedMedia", {"features": [{"name": "prefers-reduced-motion", "value": wanted}]}
        )
        page.keys("1")
        forward(page, 5)
        page.keys("f")
        page.find('[data-told="annular closing"]')
        assert (packer(page) == at_rest) == (wanted == "reduce")
        page.keys("1")
        forward(page, 30)
        page.keys("f")
        page.find('[data-told="annular open"]')
    page.driver.execute_cdp_cmd("Emulation.setEmulatedMedia", {"features": []})


def test_variable_rams_on_collars_are_told(page):
    page.open(DRILLS)
    start(page, "Kick with collars across the stack")
    kicks(page)
    page.click("Stab safety valve")
    page.click("Close safety valve")
    page.strike('[data-told$="variable bore rams open"]')
    clock(page, True)
    page.find('[data-told$="variable bore rams closed"]')
    clock(page, False)
    ended(page)
    told = rule(page, "fits").text
    assert "does not seal on collars" in told
    assert "Rating of the equipment" in told


def test_the_shoe_breaks_and_the_replay_shows_it(page):
    page.open("/designs/3/drills")
    page.choose("Hole", "s2")
    start(page, "Shallow gas on the diverter")
    kicks(page)
    page.strike('[data-told="diverter open"]')
    forward(page, 900)
    page.click("Flow check")
    credits = ended(page)
    assert credits["overboard"] == 0.0
    page.sees("Rock broke at")
    page.find('[data-testid="replay"] [data-testid="breaks"]')
    page.sees("rock takes mud")
    slider = page.find('input[type="range"]')
    slider.send_keys(Keys.HOME)
    page.until(lambda: page.all('[data-testid="replay"] [data-testid="breaks"]') == [], "whole rock at first")
    page.until(lambda: page.all('[data-testid="replay"] [data-gas]') == [], "no gas at first")
    slider.send_keys(Keys.END)
    page.find('[data-testid="replay"] [data-testid="breaks"]')
    page.find('[data-testid="replay"] [data-gas]')
