"""A real server with the built front end, and headless Chromium."""

import re
import shutil
from pathlib import Path

import pytest
from selenium import webdriver
from selenium.webdriver.chrome.options import Options
from selenium.webdriver.chrome.service import Service

from knollstack.server.app import create_app
from knollstack.server.demo import load_demo
from tests.browser.page import Page
from tests.browser.serving import serving

ROOT = Path(__file__).resolve().parents[2]


@pytest.fixture(scope="session")
def driver(tmp_path_factory):
    assert (ROOT / "web/dist/index.html").is_file(), "the front end is not built: run ./knollstack test"
    folder = tmp_path_factory.mktemp("chromium")
    options = Options()
    options.binary_location = "/usr/bin/chromium"
    for argument in (
        "--headless=new",
        "--no-sandbox",
        "--hide-scrollbars",
        "--window-size=1280,943",
        "--disable-gpu",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
        f"--user-data-dir={folder / 'profile'}",
    ):
        options.add_argument(argument)
    options.set_capability("goog:loggingPrefs", {"browser": "ALL"})
    service = Service("/usr/bin/chromedriver", env={"TMPDIR": str(folder), "PATH": "/usr/bin:/bin"})
    chromium = webdriver.Chrome(service=service, options=options)
    chromium.execute_cdp_cmd("Browser.setDownloadBehavior", {"behavior": "allow", "downloadPath": str(folder)})
    chromium.downloads = folder
    yield chromium
    chromium.quit()


@pytest.fixture(scope="session")
def demo_wells(tmp_path_factory):
    """A database with the demo wells, made once and copied for every test."""
    database = tmp_path_factory.mktemp("wells") / "knollstack.sqlite"
    create_app(database)
    load_demo(database)
    return database


@pytest.fixture
def server(request, tmp_path, demo_wells):
    """The address of a server, a process of its own, on the test's own copy of the demo wells (designs 1 to 4).

    It works in itself, unless a test asks for processes: to start them for each test takes longer than the test.
    """
    shutil.copy(demo_wells, tmp_path / "knollstack.sqlite")
    with serving(tmp_path, getattr(request, "param", "0")) as said:
        address = re.search(r"(http://\S+?)/ ", said)
        assert address, f"the server did not start: {(tmp_path / 'server.log').read_text()}"
        yield address[1]


@pytest.fixture
def page(driver, server):
    page = Page(driver, server)
    page.open("/")
    page.run("localStorage.clear()")
    driver.get_log("browser")
    yield page
    errors = [e for e in driver.get_log("browser") if e["level"] == "SEVERE" and "/api/" not in e["message"]]
    driver.get("about:blank")  # a page that is left open asks on after its server has ended
    assert errors == []
