"""Drawings and odd pictures come in shown right, redrawn safely, or are refused in a sentence."""

import io

import numpy as np
from django.test import SimpleTestCase
from PIL import Image, ImageCms

from ritornel.core.errors import BadMedia
from ritornel.core.formats.media import Limits, probe_medium
from ritornel.core.formats.svg import MOST_PARTS, clean_svg, looks_like_svg

SVG = 'xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="0 0 40 20"'


def svg(body: str) -> bytes:
    return f"<svg {SVG}>{body}</svg>".encode()


def saved(picture: Image.Image, kind: str, **more: object) -> bytes:
    out = io.BytesIO()
    picture.save(out, kind, **more)  # type: ignore[arg-type]
    return out.getvalue()


def opened(data: bytes) -> Image.Image:
    return Image.open(io.BytesIO(probe_medium(data, "x", Limits()).data))


class SvgTest(SimpleTestCase):
    def refused(self, data: bytes, words: str) -> None:
        with self.assertRaisesMessage(BadMedia, words):
            probe_medium(data, "drawing.svg", Limits())

    def test_it_is_redrawn_as_a_png_2400_px_long(self) -> None:
        medium = probe_medium(svg('<rect width="40" height="20" fill="#8a2456"/>'), "drawing.svg", Limits())
        self.assertEqual(
            (medium.media_type, medium.width_px, medium.height_px, medium.notes), ("image/png", 2400, 1200, ())
        )
        self.assertEqual(Image.open(io.BytesIO(medium.data)).convert("RGB").getpixel((9, 9)), (0x8A, 0x24, 0x56))

    def test_scripts_events_animation_and_references_to_the_outside_are_left_out_and_told(self) -> None:
        hostile = svg(
            '<script>alert(1)</script><image href="http://elsewhere.example/a.png" width="9" '
            'height="9"/><rect onclick="x()" width="40" height="20" '
            'fill="url(http://elsewhere.example/#g)"/><style>@import "http://elsewhere.example/a.css"; '
            "rect { stroke: url(//elsewhere.example) }</style>"
            '<a xlink:href="javascript:alert(1)"><animate '
            'attributeName="x"/></a><foreignObject><p>x</p></foreignObject>'
            '<use href="#ok"/><image href="file:///etc/passwd"/>'
        )
        clean, left_out = clean_svg(hostile, "drawing.svg")
        for word in (b"alert", b"elsewhere", b"onclick", b"passwd", b"foreignObject", b"animate", b"javascript"):
            self.assertNotIn(word, clean)
        self.assertIn(b"#ok", clean)
        self.assertEqual(set(left_out), {"a script", "references to the outside", "movement", "foreign parts"})
        note = probe_medium(hostile, "drawing.svg", Limits()).notes[0]
        self.assertTrue(note.startswith("“drawing.svg” was redrawn without "), note)

    def test_a_million_nodes_and_depth_without_end_are_refused(self) -> None:
        self.refused(svg("<g/>" * (MOST_PARTS + 1)), "more than 50,000 parts")
        self.refused(svg("<g>" * 300 + "</g>" * 300), "inside one another")

    def test_entities_that_grow_and_damaged_files_are_refused(self) -> None:
        self.refused(
            f'<!DOCTYPE svg [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]><svg {SVG}>&b;</svg>'.encode(),
            "entities of its own",
        )
        self.refused(svg("<rect"), "damaged SVG")

    def test_words_in_it_are_drawn_in_a_shipped_font(self) -> None:
        ground = '<rect width="40" height="20" fill="#fff"/>'
        plain, worded = (opened(svg(ground + words)) for words in ("", '<text x="2" y="12">Noon</text>'))
        difference = np.asarray(plain.convert("L"), int) - np.asarray(worded.convert("L"), int)
        self.assertGreater(np.abs(difference).sum(), 100_000)

    def test_it_is_told_by_its_content(self) -> None:
        self.assertTrue(looks_like_svg(b'\xef\xbb\xbf<?xml version="1.0"?>\n<!-- by hand --><svg>'))
        self.assertFalse(looks_like_svg(b"a text about <svg>"))


class OddPicturesTest(SimpleTestCase):
    def test_sixteen_bits_of_grey_keep_their_tones(self) -> None:
        ramp = np.linspace(0, 65535, 256).astype(np.uint16).reshape(16, 16)
        found = opened(saved(Image.fromarray(ramp), "PNG"))
        self.assertEqual(
            [found.getpixel(place) for place in ((0, 0), (0, 8), (15, 15))],
            [(0, 0, 0), (128, 128, 128), (255, 255, 255)],
        )

    def test_cmyk_comes_in_as_plain_colours(self) -> None:
        red, green, blue = opened(saved(Image.new("CMYK", (8, 8), (0, 255, 255, 0)), "JPEG")).getpixel((4, 4))  # type: ignore[misc]
        self.assertTrue(red > 240 and green < 15 and blue < 15)

    def test_colours_of_another_profile_become_those_of_srgb(self) -> None:
        lab = ImageCms.ImageCmsProfile(ImageCms.createProfile("XYZ"))
        data = saved(Image.new("RGB", (8, 8), (200, 80, 40)), "PNG", icc_profile=lab.tobytes())
        self.assertNotIn("icc_profile", opened(data).info)
        same = ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB"))
        self.assertEqual(
            probe_medium(
                own := saved(Image.new("RGB", (8, 8), (200, 80, 40)), "PNG", icc_profile=same.tobytes()), "x", Limits()
            ).data,
            own,
        )

    def test_what_moves_becomes_a_still_picture_of_its_first_moment_and_says_so(self) -> None:
        frames = [Image.new("RGB", (8, 8), colour) for colour in ("red", "blue")]
        for kind in ("GIF", "WEBP"):
            data = saved(frames[0], kind, save_all=True, append_images=frames[1:], duration=100)
            medium = probe_medium(data, "flag", Limits())
            self.assertEqual(
                (medium.media_type, medium.notes),
                ("image/png", ("“flag” moves; a still picture of its first moment was taken.",)),
            )
            self.assertGreater(opened(data).convert("RGB").getpixel((4, 4))[0], 240)  # type: ignore[index]

    def test_a_turned_picture_stands_upright_and_see_through_ones_stay_so(self) -> None:
        exif = Image.Exif()
        exif[0x0112] = 6
        self.assertEqual(opened(saved(Image.new("RGB", (40, 20)), "JPEG", exif=exif)).size, (20, 40))
        self.assertEqual(opened(saved(Image.new("LA", (8, 8), (10, 0)), "PNG")).convert("RGBA").getpixel((1, 1))[3], 0)  # type: ignore[index]

    def test_avif_is_taken_in(self) -> None:
        self.assertEqual(
            probe_medium(saved(Image.new("RGB", (8, 8), "red"), "AVIF"), "a.avif", Limits()).media_type, "image/jpeg"
        )

    def test_a_font_is_refused_by_name(self) -> None:
        with self.assertRaisesMessage(BadMedia, "“own.ttf” is a font"):
            probe_medium(b"\x00\x01\x00\x00rest", "own.ttf", Limits())
