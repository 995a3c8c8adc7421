"""The real program for tests of the interface: its server and worker as processes of their own, on demo data, and
Debian's Chromium.
"""

from __future__ import annotations

import contextlib
import ctypes
import faulthandler
import fcntl
import functools
import json
import os
import shutil
import signal
import socket
import subprocess
import sys
import tempfile
import threading
import time
import unittest
from collections.abc import Callable
from pathlib import Path
from typing import Any
from urllib.request import urlopen

from playwright.sync_api import (
    Browser,
    BrowserContext,
    CDPSession,
    ConsoleMessage,
    Page,
    Playwright,
    Response,
    ViewportSize,
    expect,
    sync_playwright,
)
from playwright.sync_api import Error as PlaywrightError

ROOT = Path(__file__).resolve().parents[2]
# Conditions are awaited, however busy the machine is; how fast things are is measured by ./run bench.
PATIENCE_S = float(os.environ.get("RITORNEL_PATIENCE_S", 30))
"""How long a condition is awaited. A developer who writes a test sets less, and then each fails at its first attempt."""
HURRIED = "RITORNEL_PATIENCE_S" in os.environ
expect.set_options(timeout=PATIENCE_S * 1000)
# Debian's Chromium without its windows: the whole one draws an interface of its own beside the page, and now and then
# stopped answering.
NAME, PASSWORD = "winder", "seventy-eight turns"
CHROMIUM = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--autoplay-policy=no-user-gesture-required",
    "--disable-sync",
    "--disable-lcd-text",
    "--force-color-profile=srgb",
]


def free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


def _die_with_parent() -> None:
    """Linux: a test run that is killed leaves no server or worker behind (prctl PR_SET_PDEATHSIG)."""
    ctypes.CDLL(None).prctl(1, signal.SIGKILL)


def copy_demo_into(folder: Path, environment: dict[str, str]) -> None:
    """The database and media of the demo. They are made once in a run of the tests, in a folder that all its groups
    share: making them takes longer than most tests.
    """
    shared = Path(os.environ.get("RITORNEL_PREPARED", os.environ.get("RITORNEL_VAR", folder)))
    made = shared / "demo"
    shared.mkdir(parents=True, exist_ok=True)
    with (shared / "demo.lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        if not made.exists():
            unfinished = shared / "demo.unfinished"
            shutil.rmtree(unfinished, ignore_errors=True)
            words = [sys.executable, "manage.py", "load_demo"]
            subprocess.run(words, cwd=ROOT, env={**environment, "RITORNEL_VAR": str(unfinished)}, check=True)
            unfinished.rename(made)
    shutil.copytree(made, folder, dirs_exist_ok=True)


class Program:
    """A server and a worker on a folder of their own."""

    def __init__(self, file_bytes: int = 3_000_000) -> None:
        self.folder = tempfile.TemporaryDirectory(prefix="ritornel-browser-")
        self.environment = {
            **os.environ,
            "RITORNEL_VAR": self.folder.name,
            "PYTHONPATH": os.pathsep.join([str(ROOT / "src"), str(ROOT)]),
            "DJANGO_SETTINGS_MODULE": "ritornel.web.config.settings",
            "RITORNEL_FILE_BYTES": str(file_bytes),
        }
        copy_demo_into(Path(self.folder.name), self.environment)
        self.port = free_port()
        self.address = f"http://127.0.0.1:{self.port}"
        self.log = (Path(self.folder.name) / "server.log").open("w")
        self.server = self.start_server()
        self.worker = self.start_worker()

    def start_server(self) -> subprocess.Popen:
        """A server that answers. One before it must have ended."""
        words = [sys.executable, "-m", "ritornel.web.serve", "--port", str(self.port), "--log-level", "error"]
        server = subprocess.Popen(words, cwd=ROOT, env=self.environment, stderr=self.log, preexec_fn=_die_with_parent)
        for _ in range(400):
            with socket.socket() as probe:
                if probe.connect_ex(("127.0.0.1", self.port)) == 0:
                    break
            time.sleep(0.05)
        urlopen(self.address + "/sign-in/").read()
        return server

    def kill_server(self) -> None:
        """Ends the server as a power cut would; the next is begun by `restart_server`."""
        self.server.kill()
        self.server.wait()

    def restart_server(self) -> None:
        """A server on the same address and folder, as after a power cut."""
        self.kill_server()
        self.server = self.start_server()

    def start_worker(self) -> subprocess.Popen:
        words = [sys.executable, "-m", "ritornel.web.worker"]
        return subprocess.Popen(
            words, cwd=ROOT, env=self.environment, stderr=subprocess.DEVNULL, preexec_fn=_die_with_parent
        )

    def manage(self, code: str) -> str:
        """What a piece of Python prints in the program's own Django."""
        words = [sys.executable, "manage.py", "shell", "-v", "0", "-c", code]
        return subprocess.run(
            words, cwd=ROOT, env=self.environment, check=True, capture_output=True, text=True
        ).stdout.strip()

    def stop(self) -> None:
        for process in (self.server, self.worker):
            process.terminate()
        for process in (self.server, self.worker):
            try:
                process.wait(timeout=5)
            except subprocess.TimeoutExpired:
                process.kill()
        self.log.close()
        self.folder.cleanup()


_stops: list[Callable[[], None]] = []


def stop_everything() -> None:
    """Stops browser and program; called once, when all tests have run."""
    while _stops:
        _stops.pop()()
    for made in (program, playwright, browser, signed_in, house_context, house_page, cleaning_page):
        made.cache_clear()


@functools.cache
def program() -> Program:
    started = Program()
    _stops.append(started.stop)
    return started


@functools.cache
def playwright() -> Playwright:
    started = sync_playwright().start()
    _stops.append(started.stop)
    return started


@functools.cache
def browser() -> Browser:
    # By its environment it is known again, whoever has become its parent.
    marked: dict[str, str | float | bool] = {**os.environ, MARK: str(os.getpid())}
    return playwright().chromium.launch(executable_path="/usr/bin/chromium-headless-shell", args=CHROMIUM, env=marked)


HUNG_S = 300
"""No test needs half as long.

Where the browser itself has stopped answering, its test is tried once more, in another browser.
"""


MARK = "RITORNEL_TESTS"
LIGHT = "/static/ritornel/mark.svg"
"""Where every test begins: something of the program's own without scripts. A page with them costs a third of a second."""
WINDOW: ViewportSize = {"width": 1280, "height": 800}


class Finger:
    """A finger on a page, as the browser's own touch events."""

    def __init__(self, page: Page) -> None:
        self._line = page.context.new_cdp_session(page)

    def _touch(self, kind: str, *at: float) -> None:
        points = [{"x": at[0], "y": at[1]}] if at else []
        self._line.send("Input.dispatchTouchEvent", {"type": kind, "touchPoints": points})

    def down(self, x: float, y: float) -> None:
        """Puts the finger down."""
        self._at = (x, y)
        self._touch("touchStart", x, y)

    def move(self, x: float, y: float, steps: int = 6) -> None:
        """Goes to a place, in steps."""
        from_x, from_y = self._at
        for step in range(1, steps + 1):
            self._touch("touchMove", from_x + (x - from_x) * step / steps, from_y + (y - from_y) * step / steps)
        self._at = (x, y)

    def up(self) -> None:
        """Lifts it."""
        self._touch("touchEnd")

    def tap(self, x: float, y: float) -> None:
        """Presses a place shortly."""
        self.down(x, y)
        self.up()


def end_browser() -> None:
    """Kills Chromium with all its processes, so that whatever waits for it raises; the next test starts another."""
    # Where everything stands, told before it is cleared away.
    faulthandler.dump_traceback(all_threads=True)
    own = f"{MARK}={os.getpid()}".encode()
    for environ in Path("/proc").glob("[0-9]*/environ"):
        with contextlib.suppress(OSError):
            if own in environ.read_bytes().split(b"\0") and b"chrom" in (environ.parent / "cmdline").read_bytes():
                os.kill(int(environ.parent.name), signal.SIGKILL)
    browser.cache_clear()


class Attempt:
    """What a result hears of one attempt at a test: its verdicts are held back until it is known whether the attempt
    counts.
    """

    def __init__(self, result: unittest.TestResult) -> None:
        self._result = result
        self._verdicts: list[Callable[[], None]] = []
        self.failed = ""

    def _hold(self, name: str, verdict: Callable[..., None], *given: Any, **named: Any) -> None:
        if name in ("addFailure", "addError"):
            self.failed = f"{given[1][0].__name__}: {given[1][1]}"
        self._verdicts.append(functools.partial(verdict, *given, **named))

    def __getattr__(self, name: str) -> Any:
        attribute = getattr(self._result, name)
        if name.startswith("add"):
            return functools.partial(self._hold, name, attribute)
        return (lambda _: None) if name in ("startTest", "stopTest") else attribute

    def count(self) -> None:
        for verdict in self._verdicts:
            verdict()


WANTS_A_PRESS = """
  // Headless Chromium lets every page be heard. This is what a page sees in a browser that wants a press first.
  const Heard = window.AudioContext;
  let pressed = false;
  addEventListener("pointerdown", () => { pressed = true; }, true);
  window.AudioContext = class extends Heard {
    get state() { return pressed ? super.state : "suspended"; }
    resume() { return pressed ? super.resume() : new Promise(() => {}); }
  };
"""


@functools.cache
def signed_in() -> Any:
    """The cookies of the demo's person, signed in once for all tests."""
    context = browser().new_context()
    page = context.new_page()
    page.goto(program().address + "/sign-in/")
    page.fill("[name=username]", NAME)
    page.fill("[name=password]", PASSWORD)
    page.get_by_role("button", name="Sign in").click()
    page.wait_for_url(program().address + "/")
    state = context.storage_state()
    context.close()
    return state


@functools.cache
def house_context(_: Browser) -> BrowserContext:
    """The context that all tests of one browser use one after another, so that what the program ships is fetched once.

    What a test leaves in it is cleared by `empty_context`.
    """
    return browser().new_context(viewport=WINDOW, storage_state=signed_in())


@functools.cache
def cleaning_page(context: BrowserContext) -> tuple[Page, CDPSession]:
    """An empty page that stays open from test to test, by which `empty_context` cleans."""
    page = context.new_page()
    return page, context.new_cdp_session(page)


class HousePage:
    """The page that tests use one after another. Compose opens in a page that stays with 1.1 s of processor, in a new
    one with 1.8 s (process, requests to its cache): about 300 s in a run of the tests.

    What would outlast the test is refused: a test that needs it takes a page of its own, `self.new_page(self.context)`.
    """

    LASTING = ("on", "once", "add_init_script", "emulate_media", "expose_function", "expose_binding")

    def __init__(self, context: BrowserContext) -> None:
        self.page = context.new_page()
        self.page.goto(program().address + LIGHT)
        self.test: BrowserTest | None = None
        watch_page(self.page, lambda: self.test)
        for name in self.LASTING:
            setattr(self.page, name, functools.partial(self.refuse, name))

    def refuse(self, name: str, *_: Any, **__: Any) -> None:
        raise AssertionError(f"{name} outlasts the test: take self.new_page(self.context) for it")

    def leave(self) -> bool:
        """Goes back to where every test begins. False when the page is not fit for another test."""
        self.test = None
        if self.page.is_closed():
            return False
        try:
            self.page.unroute_all(behavior="ignoreErrors")
            self.page.goto(program().address + LIGHT)
            self.page.evaluate("sessionStorage.clear()")
            self.page.mouse.move(0, 0)
            if self.page.viewport_size != WINDOW:
                self.page.set_viewport_size(WINDOW)
        except PlaywrightError:
            return False
        return True


@functools.cache
def house_page(context: BrowserContext) -> HousePage:
    return HousePage(context)


def watch_page(page: Page, test: Callable[[], BrowserTest | None]) -> None:
    """Tells the test of the moment what a page complains about, and what the server refuses it."""

    def complain(words: str) -> None:
        if watching := test():
            watching.complaints.append(words)

    def refuse(reply: Response) -> None:
        if reply.status == 400 and (watching := test()):
            watching.refusals.append(reply)

    def log(message: ConsoleMessage) -> None:
        if message.type == "error":
            complain(f"{message.text} {message.location['url']}")

    page.on("pageerror", lambda error: complain(str(error)))
    page.on("response", refuse)
    page.on("console", log)


def empty_context(context: BrowserContext, origin: str, fit: bool = True) -> None:
    """Takes everything a test left away, but not what was fetched of the program. A page that is not fit for another
    test is replaced.
    """
    context.set_offline(False)
    context.unroute_all(behavior="ignoreErrors")
    context.clear_permissions()
    cleaning, line = cleaning_page(context)
    if not fit or not house_page(context).leave():
        house_page(context).page.close()
        house_page.cache_clear()
    for each in context.pages:
        if each not in (cleaning, house_page(context).page):
            each.close()
    kinds = "local_storage,indexeddb,service_workers,cache_storage"
    line.send("Storage.clearDataForOrigin", {"origin": origin, "storageTypes": kinds})
    context.clear_cookies()
    context.add_cookies(signed_in()["cookies"])


class BrowserTest(unittest.TestCase):
    """A page signed in to the real program.

    What the page itself complains about fails the test, unless it says what it expects.
    """

    expected_complaints: tuple[str, ...] = ()

    def run(self, result: unittest.TestResult | None = None) -> unittest.TestResult | None:
        """One attempt; a second where Chromium stopped answering or fell over, or where the first failed on a machine
        with much to do. The second's verdict stands, and that there was one is told: what needs it often asks to be
        fixed.
        """
        self.hung = threading.Event()
        if result is None:
            return super().run(result)
        result.startTest(self)
        attempt = Attempt(result)
        super().run(attempt)  # type: ignore[arg-type]
        stopped = self.hung.is_set() or not browser().is_connected()
        if stopped:
            browser.cache_clear()
            self.hung.clear()
        if attempt.failed and not stopped:
            # Whatever its page was in the middle of.
            empty_context(house_context(browser()), program().address, fit=False)
        if (stopped or attempt.failed) and not HURRIED:
            print(
                f"\nUNSTEADY {self.id()}: {'the browser stopped' if stopped else attempt.failed}; tried once more.",
                file=sys.stderr,
                flush=True,
            )
            attempt = Attempt(result)
            super().run(attempt)  # type: ignore[arg-type]
        attempt.count()
        result.stopTest(self)
        return result

    def setUp(self) -> None:
        self.program = program()
        watch = threading.Timer(HUNG_S, self.end_hung_browser)
        watch.daemon = True
        watch.start()
        self.addCleanup(watch.cancel)
        self.base = self.program.address
        self.complaints: list[str] = []
        self.refusals: list[Response] = []
        self.context = house_context(browser())
        self.context.set_default_timeout(PATIENCE_S * 1000)
        self.addCleanup(self.empty_context)
        house = house_page(self.context)
        house.test = self
        self.page = house.page

    def empty_context(self) -> None:
        if browser().is_connected():
            empty_context(self.context, self.base)

    def end_hung_browser(self) -> None:
        self.hung.set()
        end_browser()

    def new_context(self, autoplay: bool = True, **options: Any) -> BrowserContext:
        context = browser().new_context(**{"viewport": WINDOW, **options})
        if not autoplay:
            context.add_init_script(WANTS_A_PRESS)
        context.set_default_timeout(PATIENCE_S * 1000)
        self.addCleanup(context.close)
        return context

    def new_page(self, context: BrowserContext) -> Page:
        page = context.new_page()
        watch_page(page, lambda: self)
        return page

    def sign_in(self, page: Page, name: str = NAME, password: str = PASSWORD) -> None:
        page.goto(self.base + "/sign-in/")
        page.fill("[name=username]", name)
        page.fill("[name=password]", password)
        page.get_by_role("button", name="Sign in").click()
        page.wait_for_url(self.base + "/")

    def copy_of_demo(self, page: Page | None = None, demo: str = "orlmere") -> str:
        """A show of the test's own: a copy of a demo. Returns its id."""
        page = page or self.page
        token = next(cookie["value"] for cookie in page.context.cookies() if cookie["name"] == "csrftoken")
        reply = page.request.post(
            f"{self.base}/shows/{demo}/duplicate",
            form={"title": "The Orlmere clock"},
            headers={"X-CSRFToken": token, "Referer": self.base},
            max_redirects=0,
        )
        return str(reply.headers["location"].partition("made=")[2])

    def brought_in(self, archive: bytes, page: Page | None = None) -> str:
        """The id of the show that an archive became.

        The list of shows, which grows with every test, is not opened for it.
        """
        page = page or self.page
        token = next(cookie["value"] for cookie in page.context.cookies() if cookie["name"] == "csrftoken")
        reply = page.request.post(
            self.base + "/shows/from-archive",
            multipart={"file": {"name": "demo.ritornel", "mimeType": "application/zip", "buffer": archive}},
            headers={"X-CSRFToken": token, "Referer": self.base},
        ).json()

        def made() -> str | None:
            told = page.request.get(self.base + reply["reading"]).json()
            self.assertNotEqual(told["state"], "failed", told["message"])
            return told["address"]  # type: ignore[no-any-return]

        return str(self.until(made)).rstrip("/").split("/")[-1]

    def compose(self, slide: str = "esc-s", show: str | None = None) -> str:
        """Compose, on a show of the test's own, ready to be used."""
        show = show or self.copy_of_demo()
        self.page.goto(f"{self.base}/shows/{show}/?slide={slide}")
        self.page.wait_for_selector(".theatre [data-object]")
        self.page.wait_for_selector(".score .build", state="attached")
        return show

    def at_tab(self, tab: str, page: Page | None = None) -> None:
        """Opens the slide's panel at one of its tabs."""
        page = page or self.page
        page.locator('.path [data-level="slide"]').click()
        page.locator(".panel").get_by_role("tab", name=tab, exact=False).first.click()

    def at_passage(self, words: str) -> None:
        """Opens how the slide is come into (“Transition”) or left (“Goes on”)."""
        self.at_tab("Running order")
        self.page.locator(".passage", has_text=words).click()

    def at_show(self, page: Page | None = None) -> None:
        """Opens the show's own panel."""
        (page or self.page).locator('.path [data-level="show"]').click()

    def opened(self, page: Page | None = None) -> Any:
        """The step of the path that names the slide on the stage."""
        return (page or self.page).locator('.path [data-level="slide"]')

    def score(self, show: str) -> dict[str, Any]:
        """The show as the server has it."""
        reply: Response = self.page.request.get(f"{self.base}/shows/{show}/score.json")  # type: ignore[assignment]
        return reply.json()  # type: ignore[no-any-return]

    def edit(self, show: str, edit: dict[str, Any]) -> None:
        """Makes an edit as the page of another device would."""
        self.page.goto(f"{self.base}/shows/{show}/")
        token = self.page.locator("meta[name=csrf]").get_attribute("content") or ""
        body = {"revision": self.score(show)["revision"], "edit": edit}
        headers = {"X-CSRFToken": token, "Content-Type": "application/json"}
        reply = self.page.request.post(f"{self.base}/shows/{show}/edit", data=json.dumps(body), headers=headers)
        self.assertEqual(reply.status, 200, reply.text())

    def slide(self, show: str, slide: str) -> dict[str, Any]:
        return self.page.request.get(f"{self.base}/shows/{show}/slides/{slide}.json").json()["slide"]  # type: ignore[no-any-return]

    def until(self, condition: Any, message: str = "it did not come true") -> Any:
        """Waits for a condition that the page cannot be asked for."""
        end = time.monotonic() + PATIENCE_S
        rest_ms = 20.0
        while time.monotonic() < end:
            if result := condition():
                return result
            self.page.wait_for_timeout(rest_ms)
            # Most conditions ask the server, which has better things to do when one takes its time.
            rest_ms = min(rest_ms * 1.4, 250)
        raise AssertionError(message)

    def tearDown(self) -> None:
        unexpected = [text for text in self.complaints if not any(words in text for words in self.expected_complaints)]
        self.assertEqual(unexpected, [], f"the page complained{self.told_refusals() if unexpected else ''}")

    def told_refusals(self) -> str:
        """What the server said where it refused something: that is not in the page's own complaint."""
        told = []
        for reply in self.refusals:
            with contextlib.suppress(PlaywrightError):
                told.append(reply.text()[:300])
        return "".join(f"; {words}" for words in told)
