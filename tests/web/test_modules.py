import asyncio
import re
from pathlib import Path
from typing import Any

from django.contrib.staticfiles import finders
from django.test import SimpleTestCase

from ritornel.web.config.modules import module, modules_of
from ritornel.web.config.static import StaticFirst


class ModulesTest(SimpleTestCase):
    def test_a_page_announces_every_module_its_own_imports_and_each_once(self) -> None:
        found = modules_of("ritornel/watch.js")
        self.assertEqual(found[0], "ritornel/watch.js")
        self.assertIn("ritornel/player/easing.js", found, "imported by what it imports")
        self.assertEqual(len(found), len(set(found)))
        self.assertNotIn("ritornel/compose.js", found)
        self.assertEqual(module("ritornel/watch.js").count("modulepreload"), len(found))

    def test_compose_ships_at_most_250_kb_of_script_and_style(self) -> None:
        sheets = ("ritornel/ritornel.css", "ritornel/fonts.css")
        shipped = [Path(finders.find(name) or "").stat().st_size for name in (*modules_of("ritornel/compose.js"), *sheets)]
        self.assertLessEqual(sum(shipped), 250_000)

    def test_what_comes_later_ships_too(self) -> None:
        folder = Path(finders.find("ritornel/compose.js") or "").parent
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

        asyncio.run(StaticFirst(inner)({"type": "http", "method": method, "path": path, "headers": headers}, None, send))  # type: ignore[arg-type]
        return sent

    def test_static_files_are_answered_and_asked_for_again_by_304(self) -> None:
        start, body = self.asked("/static/ritornel/watch.js")
        self.assertEqual((start["status"], body["body"][:2]), (200, b"//"))
        headers = dict(start["headers"])
        self.assertEqual((headers[b"x-content-type-options"], headers[b"content-type"][:15]), (b"nosniff", b"text/javascript"))
        again, nothing = self.asked("/static/ritornel/watch.js", ((b"if-none-match", headers[b"etag"]),))
        self.assertEqual((again["status"], nothing["body"]), (304, b""))

    def test_everything_else_and_every_way_out_of_the_folder_is_handed_on(self) -> None:
        for path in ("/", "/static/ritornel/../../settings.py", "/static/nothing.js"):
            self.assertEqual(self.asked(path), ["handed on"], path)
        self.assertEqual(self.asked("/static/ritornel/watch.js", method="POST"), ["handed on"])
