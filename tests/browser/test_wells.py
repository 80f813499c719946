"""The list of wells: sought, sorted, walked by keys, copied."""

from selenium.webdriver import Keys


def names(page):
    return [link.get_attribute("title") for link in page.all("[data-design-row] a")]


def test_wells_are_sought_sorted_walked_and_copied(page):
    page.open("/")
    page.until(lambda: len(names(page)) == 4, "four wells")
    page.until(lambda: page.find('[data-design-row="0"] td:nth-child(4)').text.count("good") > 3, "states of the steps")
    assert "stop" in page.text
    assert page.violations() == []
    page.click("Well")
    page.until(lambda: names(page)[0].startswith("Harrow"), "by name")
    assert names(page) == sorted(names(page), key=str.lower)
    page.click("Well")
    page.until(lambda: names(page)[0].startswith("Selkie"), "the other way")
    page.click("Open findings")
    page.until(lambda: "stop" in page.find('[data-design-row="0"]').text, "the gravest first")
    page.strike("h1")
    page.keys("/")
    page.keys("selk")
    page.until(lambda: len(names(page)) == 1, "found")
    page.sees("1 well, 1 design")
    page.find('[aria-label="Find a well"]').send_keys(Keys.CONTROL, "a", Keys.BACKSPACE)
    page.until(lambda: len(names(page)) == 4, "all again")
    page.keys(Keys.ARROW_DOWN)
    page.keys(Keys.ARROW_DOWN)
    second = names(page)[1]
    page.until(lambda: page.run("return document.activeElement.textContent").startswith(second), "walked")
    page.keys(Keys.ENTER)
    page.until(lambda: page.driver.current_url.endswith("/depths"), "opened")
    page.driver.back()
    page.click("Copy Harrow Fen 3")
    page.until(lambda: "Harrow Fen 3, copy" in names(page), "copied")
