"""A real server with the built front end, and headless Chromium."""

import threading
from pathlib import Path

import pytest
from selenium import webdriver
from selenium.webdriver.chrome.options import Options
from selenium.webdriver.chrome.service import Service
from waitress import create_server

from knollstack.server.app import create_app
from knollstack.server.demo import load_demo
from tests.browser.page import Page

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


@pytest.fixture
def server(tmp_path):
    """The address of a server on a database of the test's own, with the demo wells (designs 1 and 2)."""
    app = create_app(tmp_path / "k.sqlite")
    load_demo(tmp_path / "k.sqlite")
    running = create_server(app, host="127.0.0.1", port=0, threads=4)
    thread = threading.Thread(target=running.run, daemon=True)
    thread.start()
    yield f"http://127.0.0.1:{running.effective_port}"
    running.close()


@pytest.fixture
def page(driver, server):
    page = Page(driver, server)
    page.open("/")
    page.run("localStorage.clear()")
    yield page
    errors = [e for e in driver.get_log("browser") if e["level"] == "SEVERE" and "/api/" not in e["message"]]
    assert errors == []
