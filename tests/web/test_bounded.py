import asyncio
import os
import subprocess
import sys
import tempfile
from fractions import Fraction
from pathlib import Path
from typing import Any

from django.conf import settings
from django.contrib.auth.models import User
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client, SimpleTestCase, TransactionTestCase

from ritornel.core.errors import BadValue
from ritornel.web.config.bodies import USUAL_BYTES, BodyLimit
from ritornel.web.config.bounded_input import json_object, rate_of, whole_number
from ritornel.web.releases.models import FilmJob
from tests.web.base import WebTest


class BoundedInputTest(SimpleTestCase):
    def test_json_is_an_object_of_values_that_can_be_held(self) -> None:
        self.assertEqual(json_object(b'{"a": [1, 2.5, "x"]}'), {"a": [1, 2.5, "x"]})
        for data, words in (
            (b"[]", "is not a JSON object"),
            (b"{", "is not JSON"),
            (b'{"rate": 1e999}', "The number is beyond all measure|is not JSON"),
            (b'{"rate": 9007199254740993}', "The number is beyond all measure"),
            (b'{"rate": ' + b"9" * 100_000 + b"}", "The number is beyond all measure|is not JSON"),
            (b'{"name": "\\ud800"}', "half of a character|is not JSON"),
            (b'{"name": "\\u0000"}', "a sign that is no text"),
            (b'{"a":' * 60 + b"1" + b"}" * 60, "nested more than 40 levels deep"),
            (b'{"a":' * 100_000, "is not JSON"),
            (b"\xff", "is not JSON"),
        ):
            with self.subTest(data[:30]), self.assertRaisesRegex(BadValue, words):
                json_object(data)

    def test_where_the_wrong_value_stands_is_told(self) -> None:
        with self.assertRaises(BadValue) as told:
            json_object(b'{"edit": {"boxes": [{"x": 1}, {"x": 1e300}]}}')
        self.assertEqual(told.exception.field, "edit.boxes[1].x")

    def test_a_whole_number_has_at_most_fifteen_plain_digits_and_is_within_its_bounds(self) -> None:
        self.assertEqual([whole_number(text, most=100) for text in ("0", "7", "100")], [0, 7, 100])
        self.assertEqual(
            {whole_number(text, most=100) for text in ("101", "-1", "²", "٣", "1.0", " 1", "9" * 5000, "")}, {None}
        )
        self.assertEqual((whole_number("3", least=4), whole_number("999999999999999")), (None, 999_999_999_999_999))

    def test_a_rate_is_exact_and_short(self) -> None:
        self.assertEqual(
            [rate_of(given) for given in (30, 29.97, "30000/1001")],
            [Fraction(30), Fraction(2997, 100), Fraction(30000, 1001)],
        )
        for wrong in ("1e99999999", "1e5", "", "30/0", "-5", True, None, [], float("nan"), float("inf"), "9" * 7, "²"):
            with self.subTest(wrong), self.assertRaisesMessage(BadValue, "a rate is 30, 29.97 or 30000/1001"):
                rate_of(wrong)


class BoundedRequestTest(WebTest):
    def test_a_rate_that_would_take_for_ever_to_read_is_refused_and_no_film_is_made(self) -> None:
        for rate in ("1e99999999", "1e9999999", "9" * 5000):
            reply = self.post("/shows/clock/films", {"rate": rate})
            self.assertEqual((reply.status_code, reply.json()["field"]), (400, "rate"))
        self.assertEqual(FilmJob.objects.count(), 0)

    def test_what_django_or_python_would_fall_over_is_told(self) -> None:
        for path in (
            "/shows/clock/takes/compare.json?takes=²",
            "/shows/clock/record.json?take=²",
            f"/shows/clock/differences.json?since={'9' * 19}",
        ):
            self.assertLess(self.client.get(path).status_code, 500, path)
        self.assertEqual(self.client.get(f"/shows/clock/media/waltz/v1/wave/25/{'9' * 19}").status_code, 404)
        ranged = self.client.get("/shows/clock/media/night", headers={"Range": f"bytes={'9' * 5000}-"})
        self.assertEqual(
            (ranged.status_code, ranged.content), (400, b"No file is as long as the range that was asked for.")
        )
        deep = self.client.post("/shows/clock/edit", b"[" * 100_000, content_type="application/json")
        self.assertEqual((deep.status_code, deep.json()["error"]), (400, "The request is not JSON."))
        form = self.client.post("/shows/clock/edit", {"revision": "1", "file": SimpleUploadedFile("a", b"a")})
        self.assertEqual((form.status_code, form.json()["error"]), (400, "The request is not JSON."))
        huge = self.client.post("/shows/clock/films", b'{"width_px": 1e999}', content_type="application/json")
        self.assertEqual(huge.status_code, 400)

    def test_a_run_makes_only_the_files_that_its_show_plays(self) -> None:
        house = self.post("/shows/clock/run").json()
        code = house["house"]["address"].strip("/").split("/")[-1]
        stranger = Client()
        self.assertEqual(stranger.get(f"/house/{code}/media/night/100").status_code, 200)
        before = sorted(self.var.rglob("*"))
        self.assertEqual(
            {stranger.get(f"/house/{code}/media/waltz/{rate}").status_code for rate in (50, 99, 101, 150, 999_999_999)},
            {404},
        )
        self.assertEqual(sorted(self.var.rglob("*")), before)

    def test_a_fault_of_a_page_comes_into_the_log_on_one_line(self) -> None:
        with self.assertLogs("ritornel.page", "ERROR") as log:
            reply = self.post(
                "/faults",
                {
                    "page": "/shows/clock/",
                    "message": "x is\nnot defined",
                    "where": "compose.js:3",
                    "stack": "at y\n at z",
                },
            )
        self.assertEqual(reply.status_code, 200)
        self.assertEqual(log.output, ["ERROR:ritornel.page:/shows/clock/: x is not defined (compose.js:3) at y at z"])

    def test_faults_are_told_so_often_and_no_more(self) -> None:
        with self.assertLogs("ritornel.page", "ERROR") as log:
            answers = [self.post("/faults", {"message": "x"}).status_code for _ in range(25)]
        self.assertEqual((answers.count(200), answers.count(429), len(log.output)), (20, 5, 20))


class BodyLimitTest(TransactionTestCase):
    """What comes before Django."""

    def setUp(self) -> None:
        self.read = 0

    async def inner(self, scope: Any, receive: Any, send: Any) -> None:
        while True:
            message = await receive()
            self.read += len(message.get("body", b""))
            if not message.get("more_body"):
                break
        await send({"type": "http.response.start", "status": 200, "headers": []})
        await send({"type": "http.response.body", "body": b""})

    def ask(
        self, path: str, size: int, announced: int | None = None, cookie: str = "", **headers: str
    ) -> tuple[int, bytes]:
        """The answer to so many bytes in pieces of 100 kB; where no size is announced, they come in chunks."""
        pieces = [min(100_000, size - at) for at in range(0, size, 100_000)]
        sent: list[Any] = []

        async def receive() -> Any:
            return (
                {"type": "http.request", "body": b"x" * pieces.pop(0), "more_body": bool(pieces)}
                if pieces
                else {"type": "http.disconnect"}
            )

        async def send(message: Any) -> None:
            sent.append(message)

        known = {
            "cookie": cookie,
            **({"transfer-encoding": "chunked"} if announced is None else {"content-length": str(announced)}),
            **headers,
        }
        scope = {
            "type": "http",
            "method": "POST",
            "path": path,
            "headers": [(name.encode(), value.encode()) for name, value in known.items()],
        }
        asyncio.run(BodyLimit(self.inner)(scope, receive, send))
        return sent[0]["status"], sent[1]["body"]

    def cookie(self) -> str:
        client = Client()
        client.force_login(User.objects.create(username="ines"))
        return f"{settings.SESSION_COOKIE_NAME}={client.cookies[settings.SESSION_COOKIE_NAME].value}"

    def test_more_than_a_megabyte_is_refused_before_it_is_read(self) -> None:
        for path in ("/sign-in/", "/nowhere", "/shows/clock/shelf", "/shows/clock/comments/say"):
            status, body = self.ask(path, 400_000_000, 400_000_000)
            self.assertEqual(
                (status, body.decode()),
                (413, "This is too large: at most 1 MB can come to this address. Nothing was changed."),
                path,
            )
        self.assertEqual(self.read, 0)
        self.assertEqual(self.ask("/sign-in/", USUAL_BYTES, USUAL_BYTES)[0], 200)

    def test_what_comes_in_chunks_is_stopped_while_it_is_read(self) -> None:
        self.assertEqual(self.ask("/sign-in/", 30_000_000)[0], 413)
        self.assertLessEqual(self.read, USUAL_BYTES)

    def test_who_says_too_little_is_stopped_too(self) -> None:
        self.assertEqual(self.ask("/sign-in/", 30_000_000, 10)[0], 413)
        self.assertLessEqual(self.read, USUAL_BYTES)

    def test_a_size_that_is_no_number_is_refused(self) -> None:
        for announced in ("-1", "²", "9" * 5000, "1e3"):
            self.assertEqual(self.ask("/sign-in/", 10, **{"content-length": announced})[0], 413)

    def test_who_is_signed_in_brings_a_file_to_where_files_go(self) -> None:
        cookie = self.cookie()
        self.assertEqual(self.ask("/shows/clock/shelf", 20_000_000, 20_000_000, cookie)[0], 200)
        self.assertEqual(self.read, 20_000_000)
        self.assertEqual(
            self.ask("/shows/clock/shelf", 20_000_000, 20_000_000, f"{settings.SESSION_COOKIE_NAME}=made-up")[0], 413
        )
        self.assertEqual(self.ask("/sign-in/", 20_000_000, 20_000_000, cookie)[0], 413)

    def test_a_page_that_wants_json_gets_json(self) -> None:
        status, body = self.ask("/shows/clock/edit", 9_000_000, 9_000_000, self.cookie(), accept="application/json")
        self.assertEqual(
            (status, body),
            (
                413,
                b'{"error":"This is too large: at most 5 MB can come to this address. '
                b'Nothing was changed.","field":""}',
            ),
        )


class SettingsTest(SimpleTestCase):
    """The settings as another program reads them."""

    def told(self, expression: str, **environment: str) -> str:
        with tempfile.TemporaryDirectory() as folder:
            known = {
                **os.environ,
                "RITORNEL_VAR": str(Path(folder) / "var"),
                "RITORNEL_SECRET_KEY": "x" * 60,
                **environment,
            }
            words = f"from ritornel.web.config import settings as s; import os, stat; print({expression})"
            return subprocess.run(
                [sys.executable, "-c", words], env=known, capture_output=True, text=True, check=True
            ).stdout.strip()

    def test_behind_https_browsers_are_told_to_stay_there(self) -> None:
        names = "(s.SECURE_HSTS_SECONDS, s.SECURE_SSL_REDIRECT, s.SESSION_COOKIE_SECURE, s.CSRF_COOKIE_SECURE)"
        self.assertEqual(self.told(names, RITORNEL_HTTPS="1"), "(31536000, True, True, True)")
        self.assertEqual(self.told(names, RITORNEL_HTTPS=""), "(0, False, False, False)")

    def test_what_is_kept_is_for_the_program_alone(self) -> None:
        self.assertEqual(self.told("oct(stat.S_IMODE(s.VAR.stat().st_mode))"), "0o700")
        self.assertEqual(self.told("oct(os.umask(0))"), "0o77")
        self.assertEqual(self.told("os.environ['TMPDIR'] == str(s.VAR / 'tmp')"), "True")
