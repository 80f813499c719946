"""What a person does with the page, in a few words."""

import json
import re
from pathlib import Path

from selenium.common.exceptions import (
    ElementClickInterceptedException,
    ElementNotInteractableException,
    NoSuchElementException,
    StaleElementReferenceException,
    TimeoutException,
)
from selenium.webdriver import ActionChains, Keys
from selenium.webdriver.common.by import By
from selenium.webdriver.support.select import Select
from selenium.webdriver.support.wait import WebDriverWait

AXE = Path(__file__).resolve().parents[2] / "web/node_modules/axe-core/axe.min.js"
PATIENCE_S = 30.0
BLANKS = re.compile("[ \t\u00a0]+")
STILL = """
const [element, done] = arguments;
const place = () => JSON.stringify(element.getBoundingClientRect());
let down = null, up = false;
element.addEventListener("pointerdown", () => { down = place(); }, {capture: true, once: true});
element.addEventListener("pointerup", () => { up = down !== null; }, {capture: true, once: true});
// a menu that opens as the hand comes down takes what follows: where the element has not moved, nothing was lost
window.struck = () => up || (down !== null && down === place());
const look = (before) => requestAnimationFrame(() => {
  const now = place();
  if (now === before || !element.isConnected) done(); else look(now);
});
look(null);
"""


class Page:
    def __init__(self, driver, base):
        self.driver, self.base = driver, base

    def open(self, path):
        self.driver.get(self.base + path)

    def run(self, script, *arguments):
        return self.driver.execute_script(script, *arguments)

    def until(self, question, what):
        """The first true answer; fails after a while, saying what was waited for."""
        passing = (
            NoSuchElementException,
            StaleElementReferenceException,
            ElementClickInterceptedException,
            ElementNotInteractableException,
        )
        waiting = WebDriverWait(self.driver, PATIENCE_S, poll_frequency=0.03, ignored_exceptions=passing)
        try:
            return waiting.until(lambda _: question())
        except TimeoutException:
            shown = self.find("main").text if self.all("main") else self.text
            raise AssertionError(f"never came: {what}\n{self.driver.current_url}\n{shown[-1500:]}") from None

    def strike(self, where):
        """Click what a selector or a question finds, at rest; again where the page moved it away under the hand."""

        def struck():
            element = where() if callable(where) else self.driver.find_element(By.CSS_SELECTOR, where)
            if not element:
                return False
            self.driver.execute_async_script(STILL, element)
            element.click()
            # a page that was left knows no blow any more: the click has led away from it
            return self.run("return window.struck ? window.struck() : true") and element

        return self.until(struck, where if isinstance(where, str) else "what is to be clicked")

    @property
    def text(self):
        """What the page shows, as it is read: asked of the page itself, since the driver takes a second for it."""
        return BLANKS.sub(" ", self.run("return document.body?.innerText ?? ''"))

    def find(self, css):
        return self.until(lambda: self.driver.find_element(By.CSS_SELECTOR, css), css)

    def all(self, css):
        return self.driver.find_elements(By.CSS_SELECTOR, css)

    def click(self, words):
        """Click the button, link or tab of this name."""
        name = "normalize-space(translate(., '\u00a0', ' '))"
        path = f'//*[self::button or self::a or @role="menuitem"][contains({name}, "{words}") or @aria-label="{words}"]'
        self.until(lambda: self.driver.find_element(By.XPATH, path).is_displayed(), words)
        self.strike(lambda: self.driver.find_element(By.XPATH, path))

    def sees(self, words):
        self.until(lambda: words in self.text, words)

    def gone(self, words):
        self.until(lambda: words not in self.text, f"without: {words}")

    def saved(self, revision, or_later=False):
        """Wait until a revision is saved; several edits in a row may take more than one on a slow machine."""

        def is_saved():
            status = self.find("[role=status]")
            number = int(status.get_attribute("data-revision"))
            right = number >= revision if or_later else number == revision
            return status.get_attribute("data-save") == "saved" and right

        self.until(is_saved, f"revision {revision}")

    def type(self, place, text, enter=True):
        """Type over the field of a place in the document."""
        field = self.strike(f'[data-place="{place}"]')
        if field.tag_name == "td":  # a cell of a table: typing replaces it
            field.send_keys(text + (Keys.ENTER if enter else ""))
            return field
        field.send_keys(Keys.CONTROL, "a")
        field.send_keys(text + (Keys.ENTER if enter else ""))
        return field

    def value(self, place):
        field = self.find(f'[data-place="{place}"]')
        return field.get_attribute("data-text" if field.tag_name == "td" else "value")

    def paste(self, place, text):
        """Paste a block into the cell of a place, as from a spreadsheet."""
        self.strike(f'[data-place="{place}"]')
        self.run(
            "const data = new DataTransfer(); data.setData('text/plain', arguments[0]);"
            "document.activeElement.dispatchEvent(new ClipboardEvent('paste',"
            " {clipboardData: data, bubbles: true, cancelable: true}))",
            text,
        )

    def choose(self, label, value):
        """Take an option of a list by its value, once the list holds it."""
        self.until(lambda: Select(self.named(label)).select_by_value(value) or True, f"{label}: {value}")

    def value_of(self, label):
        return self.named(label).get_attribute("value")

    def named(self, label):
        """The field of this label, blanks of any kind in it."""
        path = f"//*[translate(@aria-label, '\u00a0', ' ')=\"{label}\"]"
        return self.until(lambda: self.driver.find_element(By.XPATH, path), label)

    def prefer(self, **settings):
        """Settings of the person, in force from the next page on."""
        self.run("localStorage.setItem('knollstack.preferences', arguments[0])", json.dumps(settings))

    def cut_off(self):
        """The server is not reached any more."""
        self.run("window.reached = window.fetch; window.fetch = () => Promise.reject(new TypeError('away'))")

    def refuse_saves(self, status):
        """Every save is answered with a status; all else as before."""
        self.run(
            "const refused = arguments[0], body = JSON.stringify({status: refused, detail: '', faults: []});"
            "window.reached = window.fetch;"
            "window.fetch = (url, init) => init?.method === 'PUT'"
            " ? Promise.resolve(new Response(body, {status: refused})) : window.reached(url, init)",
            status,
        )

    def reach_again(self):
        self.run("window.fetch = window.reached")

    def document(self, design):
        """The saved document of a design."""
        return json.loads(self.run(f"return fetch('/api/designs/{design}').then(r => r.text())"))["document"]

    def drag_shoe(self, index, dy, release=True):
        self.drag(f'[data-shoe="{index}"] rect', 0, dy, release)

    def drag(self, css, dx, dy, release=True):
        handle = self.find(css)
        actions = ActionChains(self.driver).move_to_element(handle).click_and_hold()
        for _ in range(4):
            actions.move_by_offset(dx / 4, dy / 4)
        (actions.release() if release else actions).perform()

    def shoe(self, index):
        return self.find(f'[data-shoe="{index}"]').get_attribute("aria-valuetext").replace("\u00a0", " ")

    def keys(self, key, held=None):
        actions = ActionChains(self.driver)
        if held:
            actions.key_down(held)
        actions.send_keys(key)
        if held:
            actions.key_up(held)
        actions.perform()

    def violations(self, only=None):
        """What axe-core finds on the page as it stands, by all of its rules or by one of them."""
        self.run(AXE.read_text())
        script = (
            "const [rule, done] = arguments;axe.run(rule ? {runOnly: {type: 'rule', values: [rule]}} : {}).then(done);"
        )
        result = self.driver.execute_async_script(script, only)
        return [(v["id"], [n["html"][:120] for n in v["nodes"]][:3]) for v in result["violations"]]
