"""Whatever is sent to an address, somebody made a mistake that can be told: nothing answers 500."""

import json
import logging
import sys
from typing import Any
from urllib.parse import quote, urlencode

from django.core.signals import got_request_exception
from django.db import transaction
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from ritornel.core.document.edits import Edit
from tests.values import JSON, values_of
from tests.web.cast import CastTest
from tests.web.test_matrix import ROWS, Row

HOSTILE = (
    "1e99999999",
    "1e999",
    "-1",
    "²",
    "9" * 19,
    "9" * 5000,
    "\ud800",
    "\x00",
    "true",
    "NaN",
    "../../etc/passwd",
    "%00",
    "a" * 3000,
    "",
    "\n",
    "🕰",
)
"""Words that somebody might send in the place of a number or a name."""
SENT = [row for row in ROWS if row.sent is not None and not row.form]
ASKED = [row for row in ROWS if row.sent is None]
THIRD = 3
NAMES = (
    "since",
    "take",
    "takes",
    "section",
    "viewing",
    "words",
    "kind",
    "edition",
    "from",
    "slide",
    "at",
    "first",
    "ask",
    "window",
    "save",
    "slides",
    "rate",
)


RANGES = (
    "",
    "bytes=0-",
    "bytes=" + "9" * 5000 + "-",
    "bytes=-²",
    "bytes=5-2",
    "lines=1-2",
    "bytes=0-1,5-9",
    "bytes=-0",
)
QUERIES = st.dictionaries(
    st.sampled_from(NAMES), st.sampled_from(HOSTILE) | st.text(max_size=9), min_size=1, max_size=2
)


def examples(count: int) -> settings:
    """So many examples, always the same ones."""
    return settings(
        max_examples=count, deadline=None, database=None, derandomize=True, suppress_health_check=list(HealthCheck)
    )


def sent_instead(sent: dict[str, Any]) -> st.SearchStrategy[Any]:
    """Bodies that look like a right one: with one value, or some, replaced."""
    replaced = st.dictionaries(
        st.sampled_from([*sent, "viewing", "revision", "more"]), JSON | st.sampled_from(HOSTILE), min_size=1, max_size=3
    )
    return JSON | replaced.map(lambda instead: {**sent, **instead})


class FuzzTest(CastTest):
    def setUp(self) -> None:
        super().setUp()
        self.asked = 0
        self.fell: list[str] = []
        logging.disable(logging.CRITICAL)
        self.addCleanup(logging.disable, logging.NOTSET)
        self.client.raise_request_exception = False
        got_request_exception.connect(self.note)
        self.addCleanup(got_request_exception.disconnect, self.note)

    def note(self, sender: Any, **_: Any) -> None:
        self.fell.append(repr(sys.exception()))

    def tried(self, method: str, where: str, body: Any = None, **headers: str) -> Any:
        """Asks once and takes back what that changed. Raises AssertionError where it fell over."""
        self.asked += 1
        with transaction.atomic():
            if method == "GET":
                reply = self.client.get(where, headers=headers or None)
            else:
                data = body if isinstance(body, bytes | str) else json.dumps(body)
                reply = self.client.post(
                    where, data, content_type=headers.pop("content_type", "application/json"), headers=headers or None
                )
            transaction.set_rollback(True)
        self.assertNotIn(
            reply.status_code, (500, 502, 503), f"{method} {where[:300]} with {str(body)[:1500]}: {self.fell[-1:]}"
        )
        return reply

    def test_json_that_is_something_else_is_told(self) -> None:
        @examples(170)
        @given(st.sampled_from(SENT).flatmap(lambda row: st.tuples(st.just(row), sent_instead(row.sent or {}))))
        def one(given: tuple[Row, Any]) -> None:
            row, body = given
            self.tried("POST", row.where.format(**self.named), body)

        one()

    def test_each_value_may_be_of_any_kind(self) -> None:
        values = (None, [], {}, [[]], {"a": []}, -1, 1.5, True, "x" * 5000)
        named = [(row, name) for row in SENT for name in row.sent or {}]
        for number, (row, name) in enumerate(named):
            # Each value takes every third turn: all are tried at a third of the places, and three or so at each.
            for value in values[number % THIRD :: THIRD]:
                self.tried("POST", row.where.format(**self.named), {**(row.sent or {}), name: value})
        self.assertGreater(self.asked, 100)

    def test_edits_of_every_kind_with_any_values_are_made_or_told(self) -> None:
        @examples(250)
        @given(edit=values_of(Edit))
        def one(edit: Any) -> None:
            revision = self.row.revision
            self.tried("POST", "/shows/clock/edit", {"revision": revision, "edit": edit, "viewing": "esc-s"})

        self.row.refresh_from_db()
        one()

    def test_queries_and_addresses_with_anything_in_them_are_told(self) -> None:
        @examples(150)
        @given(st.sampled_from(ASKED), QUERIES, st.sampled_from(RANGES), st.integers(0, 9), st.sampled_from(HOSTILE))
        def one(row: Row, query: dict[str, str], asked: str, at: int, word: str) -> None:
            where = row.where.format(**self.named).split("?")[0]
            self.tried("GET", f"{where}?{urlencode(query, errors='surrogatepass')}", Range=asked)
            parts = where.strip("/").split("/")
            parts[at % len(parts)] = quote(word, errors="surrogatepass")
            self.tried("GET", f"/{'/'.join(parts)}{'/' if where.endswith('/') else ''}")

        one()

    def test_what_is_no_json_at_all_is_told(self) -> None:
        bodies = (
            b"",
            b"{",
            b"[" * 100_000,
            b'{"a":' * 100_000,
            b'{"rate": 1e99999999}',
            b'{"rate": "\\ud800"}',
            b"\xff\xfe",
            b"null",
            b"[]",
            b"1" * 5000,
        )
        for number, row in enumerate(SENT):
            where = row.where.format(**self.named)
            for body in bodies[number % THIRD :: THIRD]:
                self.assertLess(self.tried("POST", where, body).status_code, 500)
            form = b'--x\r\nContent-Disposition: form-data; name="a"\r\n\r\n1\r\n--x--\r\n'
            self.tried("POST", where, form, content_type="multipart/form-data; boundary=x")
            self.tried("POST", where, b"a=1", content_type="application/x-www-form-urlencoded")
        self.assertGreater(self.asked, 150)
