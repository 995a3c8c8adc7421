"""A server that is killed at any moment loses nothing of what it had said to be saved."""

import http.client
import json
import random
import re
import threading
import time
import unittest
from http.cookies import SimpleCookie
from typing import Any

from tests.browser.base import NAME, PASSWORD, Program

KILLS = 3
WRITERS = 3


class Visitor:
    """Somebody signed in, without a browser."""

    def __init__(self, program: Program) -> None:
        self._program = program
        self._cookies: dict[str, str] = {}
        token = re.search(r'name="csrfmiddlewaretoken" value="([^"]+)"', self.ask("GET", "/sign-in/")[1].decode())
        assert token
        form = f"username={NAME}&password={PASSWORD.replace(' ', '+')}&csrfmiddlewaretoken={token[1]}"
        status, _ = self.ask("POST", "/sign-in/", form.encode(), {"Content-Type": "application/x-www-form-urlencoded"})
        assert status == 302, status

    def ask(
        self, method: str, path: str, body: bytes = b"", headers: dict[str, str] | None = None
    ) -> tuple[int, bytes]:
        """The status and body of an answer. Raises OSError or HTTPException where there is none."""
        connection = http.client.HTTPConnection("127.0.0.1", self._program.port, timeout=20)
        try:
            cookie = "; ".join(f"{name}={value}" for name, value in self._cookies.items())
            known = {
                "Cookie": cookie,
                "X-CSRFToken": self._cookies.get("csrftoken", ""),
                "Content-Type": "application/json",
                **(headers or {}),
            }
            connection.request(method, path, body or None, known)
            reply = connection.getresponse()
            for line in reply.headers.get_all("Set-Cookie") or []:
                self._cookies |= {name: morsel.value for name, morsel in SimpleCookie(line).items()}
            return reply.status, reply.read()
        finally:
            connection.close()


class KillTest(unittest.TestCase):
    def setUp(self) -> None:
        self.program = Program()
        self.addCleanup(self.program.stop)
        self.over = threading.Event()
        self.made: list[list[str]] = [[] for _ in range(WRITERS)]
        """What each writer was told to be saved, in order."""

    def write(self, visitor: Visitor, number: int) -> None:
        """Adds slides one after the other; one without an answer is sent again with the same id until it is
        answered.
        """
        count, revision = 0, 0
        while not self.over.is_set():
            slide = f"w{number}-{count}"
            edit = {"do": "add slide", "at": 0, "slide": {"id": slide, "name": slide}}
            while True:
                try:
                    sent = json.dumps({"revision": revision, "edit": edit}).encode()
                    status, body = visitor.ask("POST", "/shows/orlmere/edit", sent, {"X-Edit-Id": f"edit-{slide}"})
                    if status == 409:
                        # Somebody else's came between; the id stays, so that one that was made is not made again.
                        revision = int(self.score(visitor)["revision"])
                        continue
                except (OSError, http.client.HTTPException):
                    if self.over.is_set():
                        return
                    time.sleep(0.05)
                    continue
                assert status == 200, body
                self.made[number].append(slide)
                break
            count += 1

    def test_every_edit_that_was_answered_is_there_and_each_was_made_once(self) -> None:
        visitor = Visitor(self.program)
        before = self.order(visitor)
        writers = [
            threading.Thread(target=self.write, args=(Visitor(self.program), number)) for number in range(WRITERS)
        ]
        for writer in writers:
            writer.start()
        chance = random.Random(1)
        for _ in range(KILLS):
            time.sleep(0.3 + chance.random() * 0.7)
            self.program.restart_server()
        self.over.set()
        for writer in writers:
            writer.join()
        order = self.order(visitor)
        told = [slide for made in self.made for slide in made]
        self.assertGreater(len(told), KILLS, "the writers were at work")
        self.assertEqual(set(told) - set(order), set(), "answered and lost")
        self.assertEqual(len(order), len(set(order)), "made twice")
        self.assertLessEqual(
            len(order) - len(before) - len(told), WRITERS, "only what was on its way is there without an answer"
        )

    def order(self, visitor: Visitor) -> list[str]:
        return list(self.score(visitor)["order"])

    def score(self, visitor: Visitor) -> dict[str, Any]:
        status, body = visitor.ask("GET", "/shows/orlmere/score.json")
        self.assertEqual(status, 200)
        found: dict[str, Any] = json.loads(body)
        return found
