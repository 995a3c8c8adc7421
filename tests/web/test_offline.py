import base64
import hashlib
import html
import io
import re
import zipfile

from ritornel.web.releases.page_alone import ENTRY, module_map
from ritornel.web.shows.services import media_path
from tests.web.base import WebTest


class OfflineTest(WebTest):
    def test_the_modules_of_the_player_import_each_other_by_name(self) -> None:
        import json

        imports = json.loads(module_map())["imports"]
        self.assertIn(ENTRY, imports)
        self.assertIn("ritornel/player/footage.js", imports)
        source = base64.b64decode(imports[ENTRY].split(",")[1]).decode()
        self.assertIn('from "ritornel/player/player.js"', source)
        self.assertNotIn('from "./', source)

    def test_a_folder_has_its_pictures_beside_its_page(self) -> None:
        reply = self.client.get("/shows/clock/offline.zip")
        with zipfile.ZipFile(io.BytesIO(reply.content)) as archive:
            names = archive.namelist()
        self.assertEqual(names[0], "the-orlmere-clock/index.html")
        self.assertEqual(len([name for name in names if name.endswith(".jpg")]), 5)

    def test_what_weighs_most_is_told(self) -> None:
        told = self.client.get("/shows/clock/offline.json").json()
        self.assertEqual((told["heaviest"][0]["name"], told["single"]), ("Winders' waltz", True))
        self.assertEqual(
            told["bytes"],
            sum(path.stat().st_size for path in {media_path(a["sha256"]) for a in self.score()["assets"]}),
        )

    def test_a_missing_medium_is_told_and_nothing_is_saved(self) -> None:
        media_path(next(asset["sha256"] for asset in self.score()["assets"] if asset["id"] == "noon")).unlink()
        for name in ("offline.json", "offline.html", "offline.zip"):
            reply = self.client.get(f"/shows/clock/{name}")
            self.assertEqual(reply.status_code, 400)
            self.assertIn("The file of “The tower at noon” is missing", reply.json()["error"])

    def test_a_page_runs_its_own_scripts_and_reaches_nothing_elsewhere(self) -> None:
        page = self.client.get("/shows/clock/offline.html").content.decode()
        policy = html.unescape(re.findall(r'Content-Security-Policy" content="([^"]+)"', page)[0])
        self.assertTrue(policy.startswith("default-src 'none'; script-src 'sha256-"))
        self.assertNotIn("unsafe", policy)
        self.assertNotIn("http", policy)
        for kind in ("importmap", "module"):
            script = re.findall(rf'<script type="{kind}">(.*?)</script>', page, re.DOTALL)[0]
            self.assertIn(base64.b64encode(hashlib.sha256(script.encode()).digest()).decode(), policy, kind)
