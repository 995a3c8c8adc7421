import asyncio
import gzip
import re
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any
from unittest import mock

import tree_sitter_javascript
from django.contrib.staticfiles import finders
from django.templatetags.static import static
from django.test import SimpleTestCase
from tree_sitter import Language, Parser

from ritornel.web.config.modules import module, modules_of
from ritornel.web.config.shipped_scripts import shipped_script
from ritornel.web.config.slow_line import SlowLine
from ritornel.web.config.static import StaticFirst
from ritornel.web.config.static_stamp import stamp_of


class ModulesTest(SimpleTestCase):
    def test_a_page_announces_every_module_its_own_imports_and_each_once(self) -> None:
        found = modules_of("ritornel/pages/watch.js")
        self.assertEqual(found[0], "ritornel/pages/watch.js")
        self.assertIn("ritornel/player/easing.js", found, "imported by what it imports")
        self.assertEqual(len(found), len(set(found)))
        self.assertNotIn("ritornel/pages/compose.js", found)
        self.assertEqual(module("ritornel/pages/watch.js").count("modulepreload"), len(found))

    def test_compose_ships_at_most_210_kb_of_script_and_style(self) -> None:
        sheets = [Path(finders.find(name) or "") for name in ("ritornel/ritornel.css", "ritornel/fonts.css")]
        scripts = [Path(finders.find(name) or "") for name in modules_of("ritornel/pages/compose.js")]
        shipped = [len(shipped_script(path.read_bytes())) for path in scripts]
        self.assertLessEqual(sum(shipped) + sum(path.stat().st_size for path in sheets), 210_000)

    def test_scripts_ship_without_what_only_developers_read_and_stay_as_written_where_django_debugs(self) -> None:
        source = rb"""// Why it is so.
/*! by the winders */
/** @param {number} ms */
export const half = (ms) =>
	ms / 2; // in ms
const said = `//  ${[1].map((n) => `${n}  ${half(n)}`)}
	/* not a comment */`, sign = /[/*"]+\/{2}/g;
"""
        shipped = shipped_script(source).decode()
        self.assertIn("/*! by the winders */", shipped)
        self.assertIn("export const half = (ms) =>\nms / 2;\nconst said", shipped)
        self.assertIn("`//  ${[1].map((n) => `${n}  ${half(n)}`)}\n\t/* not a comment */`", shipped)
        self.assertIn(r'sign = /[/*"]+\/{2}/g;', shipped)
        for gone in ("Why", "@param", "in ms"):
            self.assertNotIn(gone, shipped)
        with self.settings(DEBUG=True):
            self.assertEqual(shipped_script(source), source)

    def test_every_script_of_ours_ships_the_same_words_in_the_same_order(self) -> None:
        def words(source: bytes) -> list[tuple[str, bytes]]:
            waiting, found = [Parser(Language(tree_sitter_javascript.language())).parse(source).root_node], []
            while waiting:
                node = waiting.pop()
                if node.type == "comment":
                    continue
                if node.type in ("string", "template_string") or not node.children:
                    found.append((node.type, source[node.start_byte : node.end_byte]))
                else:
                    waiting += reversed(node.children)
            return found

        folder = Path(finders.find("ritornel/pages/compose.js") or "").parents[1]
        scripts = [path.read_bytes() for path in folder.rglob("*.js")]
        self.assertGreater(len(scripts), 200)
        for source in scripts:
            shipped = shipped_script(source)
            self.assertLess(len(shipped), len(source))
            self.assertEqual(words(shipped), words(source))

    def test_a_script_that_cannot_be_read_ships_as_it_is(self) -> None:
        self.assertEqual(shipped_script(b"const = ; // so"), b"const = ; // so")

    def test_what_comes_later_ships_too(self) -> None:
        folder = Path(finders.find("ritornel/pages/compose.js") or "").parent
        for path in folder.rglob("*.js"):
            for target in re.findall(r'\bimport\("([^"]+)"\)', path.read_text()):
                self.assertTrue((path.parent / target).is_file(), f"{path.name} asks for {target}")

    def test_a_module_that_does_not_ship_is_told_by_name(self) -> None:
        with self.assertRaisesMessage(FileNotFoundError, "There is no module “ritornel/gone.js”"):
            modules_of("ritornel/gone.js")


class StaticFirstTest(SimpleTestCase):
    def asked(self, path: str, headers: tuple[tuple[bytes, bytes], ...] = (), method: str = "GET") -> list[Any]:
        sent: list[Any] = []

        async def inner(scope: Any, receive: Any, send: Any) -> None:
            await send("handed on")

        async def send(message: Any) -> None:
            sent.append(message)

        asyncio.run(
            StaticFirst(inner)({"type": "http", "method": method, "path": path, "headers": headers}, None, send)
        )  # type: ignore[arg-type]
        return sent

    def test_with_the_stamp_of_this_version_a_file_is_kept_for_a_year_and_with_another_it_is_asked_for_again(
        self,
    ) -> None:
        name = "ritornel/pages/watch.js"
        stamped, plain, old = (
            self.asked(address) for address in (static(name), f"/static/{name}", f"/static/0123456789ab/{name}")
        )
        self.assertEqual(stamped[1]["body"], old[1]["body"])
        kept = [dict(reply[0]["headers"])[b"cache-control"] for reply in (stamped, plain, old)]
        self.assertEqual(kept[0], b"public, max-age=31536000, immutable")
        self.assertTrue(all(b"max-age=0" in one for one in kept[1:]), kept)

    def test_the_stamp_is_of_names_and_contents(self) -> None:
        with TemporaryDirectory() as name:
            folder = Path(name)
            (folder / "a.js").write_text("1")
            first = stamp_of([folder])
            self.assertEqual(first, stamp_of([folder]))
            (folder / "a.js").write_text("2")
            second = stamp_of([folder])
            (folder / "a.js").rename(folder / "b.js")
            self.assertEqual(len({first, second, stamp_of([folder])}), 3)

    def test_static_files_are_answered_and_asked_for_again_by_304(self) -> None:
        start, body = self.asked("/static/ritornel/pages/watch.js")
        self.assertEqual((start["status"], body["body"][:6]), (200, b"import"))
        headers = dict(start["headers"])
        self.assertEqual(
            (headers[b"x-content-type-options"], headers[b"content-type"][:15]), (b"nosniff", b"text/javascript")
        )
        again, nothing = self.asked("/static/ritornel/pages/watch.js", ((b"if-none-match", headers[b"etag"]),))
        self.assertEqual((again["status"], nothing["body"]), (304, b""))

    def test_everything_else_and_every_way_out_of_the_folder_is_handed_on(self) -> None:
        for path in ("/", "/static/ritornel/../../settings.py", "/static/nothing.js"):
            self.assertEqual(self.asked(path), ["handed on"], path)
        self.assertEqual(self.asked("/static/ritornel/pages/watch.js", method="POST"), ["handed on"])

    def test_words_travel_packed_to_those_who_can_unpack_them_and_fonts_as_they_are(self) -> None:
        start, body = self.asked("/static/ritornel/pages/watch.js", ((b"accept-encoding", b"gzip, br"),))
        headers = dict(start["headers"])
        self.assertEqual((headers[b"content-encoding"], headers[b"vary"]), (b"gzip", b"accept-encoding"))
        self.assertEqual(int(headers[b"content-length"]), len(body["body"]))
        self.assertEqual(gzip.decompress(body["body"]), self.asked("/static/ritornel/pages/watch.js")[1]["body"])
        start, _ = self.asked("/static/ritornel/record/practice-voice.ogg", ((b"accept-encoding", b"gzip"),))
        self.assertNotIn(b"content-encoding", dict(start["headers"]))
        again, nothing = self.asked(
            "/static/ritornel/pages/watch.js", ((b"accept-encoding", b"gzip"), (b"if-none-match", headers[b"etag"]))
        )
        self.assertEqual((again["status"], nothing["body"]), (304, b""))


class SlowLineTest(SimpleTestCase):
    """Times are not waited for: what is waited is gathered."""

    def sent(self, requests: list[dict[str, Any]], size: int = 40_000) -> tuple[list[Any], list[float]]:
        got: list[Any] = []
        waited: list[float] = []

        async def page(scope: Any, receive: Any, send: Any) -> None:
            await send({"type": "http.response.start", "status": 200, "headers": []})
            await send({"type": "http.response.body", "body": bytes(size)})

        async def send(message: Any) -> None:
            got.append(message)

        async def sleep(seconds: float) -> None:
            waited.append(seconds)

        async def visit() -> None:
            line = SlowLine(page)
            for request in requests:
                await line({"type": "http", "query_string": b"", "headers": [], **request}, None, send)  # type: ignore[arg-type]

        with (
            mock.patch("ritornel.web.config.slow_line.asyncio.sleep", sleep),
            mock.patch("ritornel.web.config.slow_line.time.monotonic", lambda: 100.0),
        ):
            asyncio.run(visit())
        return got, waited

    def test_what_nobody_asked_to_be_slow_is_handed_on_at_once(self) -> None:
        got, waited = self.sent([{}, {"query_string": b"start=press"}, {"headers": [(b"referer", b"http://x/s/1/")]}])
        self.assertEqual((len(got), waited), (6, []))

    def test_a_page_and_what_it_asks_for_share_one_line(self) -> None:
        page = {"query_string": b"line=slow-abc"}
        part = {"headers": [(b"referer", b"http://x/s/1/?line=slow-abc")]}
        got, waited = self.sent([page, part])
        self.assertEqual(
            [round(seconds, 3) for seconds in waited],
            [0.15, 0.08, 0.16, 0.2, 0.15, 0.28, 0.36, 0.4],
            "40 000 bytes take 0.2 s, in pieces",
        )
        bodies = [message for message in got if message["type"] == "http.response.body"]
        self.assertEqual(
            [(len(message["body"]), message["more_body"]) for message in bodies[:3]],
            [(16_000, True), (16_000, True), (8_000, False)],
        )

    def test_two_visits_have_a_line_each(self) -> None:
        _, waited = self.sent([{"query_string": b"line=slow-abc"}, {"query_string": b"loop=on&line=slow-abd"}], 16_000)
        self.assertEqual([round(seconds, 3) for seconds in waited], [0.15, 0.08, 0.15, 0.08])
