import re
from pathlib import Path

from django.contrib.staticfiles import finders
from django.test import SimpleTestCase
from fontTools.ttLib import TTFont

from ritornel.web.styles.web_fonts import SOURCE, web_name


class WebFontsTest(SimpleTestCase):
    def test_browsers_get_the_letters_that_the_core_measures(self) -> None:
        fonts = sorted(SOURCE.rglob("*.ttf"))
        self.assertGreater(len(fonts), 40)
        for source in fonts:
            own, web = TTFont(source), TTFont(web_name(source))
            self.assertEqual(web.flavor, "woff2")
            self.assertEqual(own.getBestCmap(), web.getBestCmap(), source.name)
            self.assertEqual(own["hmtx"].metrics, web["hmtx"].metrics, source.name)

    def test_the_sheet_names_each_and_no_other(self) -> None:
        sheet = Path(finders.find("ritornel/fonts.css") or "")
        named = {(sheet.parent / name).resolve() for name in re.findall(r'url\("([^"]+)"\)', sheet.read_text())}
        self.assertEqual(named, {web_name(source).resolve() for source in SOURCE.rglob("*.ttf")})
