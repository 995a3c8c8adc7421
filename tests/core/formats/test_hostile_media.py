"""Files made to do harm, or broken on their way: each is refused in a sentence, and nothing of what they ask for is
done.
"""

import io
import socket
import struct
import time
import zlib
from pathlib import Path
from tempfile import TemporaryDirectory

import av
from django.test import SimpleTestCase
from PIL import Image

from ritornel.core.containers import open_container
from ritornel.core.errors import BadMedia
from ritornel.core.formats.media import Limits, probe_medium
from ritornel.core.time.milliseconds import LONGEST_MS
from ritornel.demo.orlmere import media
from tests.footage import footage


def udp_ports() -> set[str]:
    """The local ports that are bound, of any process of this machine's network."""
    return {
        line.split()[1] for name in ("udp", "udp6") for line in Path(f"/proc/net/{name}").read_text().splitlines()[1:]
    }


def chunk(kind: bytes, data: bytes) -> bytes:
    return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))


def png_with(kind: bytes, data: bytes) -> bytes:
    out = io.BytesIO()
    Image.new("RGB", (8, 8)).save(out, "PNG")
    plain = out.getvalue()
    return plain[:33] + chunk(kind, data) + plain[33:]


def clip_of_days(days: float) -> bytes:
    """A WebM of two pictures, the second of which is shown days after the first."""
    return footage(2, codec="libvpx", sound=False, times=[0, int(days * 86_400_000)])


class HostileMediaTest(SimpleTestCase):
    def refused(self, data: bytes, name: str) -> str:
        with self.assertRaises(BadMedia) as caught:
            probe_medium(data, name, Limits())
        return str(caught.exception)

    def test_a_description_of_a_stream_opens_no_port_and_a_playlist_no_other_file(self) -> None:
        with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
            probe.bind(("127.0.0.1", 0))
            port = probe.getsockname()[1]
        session = (
            f"v=0\r\no=- 0 0 IN IP4 127.0.0.1\r\ns=x\r\nc=IN IP4 127.0.0.1\r\nt=0 0\r\nm=video {port} "
            "RTP/AVP 96\r\na=rtpmap:96 H264/90000\r\n"
        ).encode()
        with TemporaryDirectory() as folder:
            secret = Path(folder) / "secret.wav"
            secret.write_bytes(next(data for asset, data in media().values() if asset.kind == "sound"))
            lists = (
                f"#EXTM3U\n#EXT-X-TARGETDURATION:9\n#EXTINF:9,\nfile://{secret}\n#EXT-X-ENDLIST\n",
                f"ffconcat version 1.0\nfile {secret}\n",
                "<?xml version='1.0'?><MPD "
                f"xmlns='urn:mpeg:dash:schema:mpd:2011'><Period><BaseURL>file://{secret}</BaseURL></Period></MPD>",
            )
            before = udp_ports()
            for data in (session, *(text.encode() for text in lists)):
                self.assertIn("is neither a picture nor a sound nor a clip", self.refused(data, "x.mp4"))
                path = Path(folder) / "x.mp4"
                path.write_bytes(data)
                with self.assertRaises(av.FFmpegError):
                    open_container(path)
            self.assertEqual(udp_ports() - before, set())

    def test_half_a_picture_is_told_wherever_it_was_cut_off(self) -> None:
        for form in ("JPEG", "WEBP", "PNG", "GIF", "AVIF"):
            out = io.BytesIO()
            Image.effect_noise((120, 90), 60).convert("RGB").save(out, form)
            whole = out.getvalue()
            for cut in (3, 20, 60, 200, len(whole) // 2, len(whole) - 40):
                told = self.refused(whole[:cut], f"x.{form.lower()}")
                self.assertRegex(
                    told, "damaged|neither a picture|is empty|no picture in it can be read", f"{form} cut at {cut}"
                )

    def test_words_in_a_picture_that_unpack_without_end_are_refused(self) -> None:
        bomb = zlib.compress(bytes(200_000_000), 9)
        began = time.process_time()
        bombs = {b"zTXt": b"Comment\0\0" + bomb, b"iTXt": b"Comment\0\1\0\0\0" + bomb, b"iCCP": b"profile\0\0" + bomb}
        for kind, data in bombs.items():
            self.assertIn("it is damaged. Nothing was added.", self.refused(png_with(kind, data), "x.png"), kind)
        self.assertLess(time.process_time() - began, 20)

    def test_a_drawing_that_computes_without_end_is_given_up(self) -> None:
        layers = "".join(f'<feGaussianBlur stdDeviation="{90 + n}"/>' for n in range(400))
        filled = '<rect width="2400" height="2400" filter="url(#f)"/>'
        drawing = (
            '<svg xmlns="http://www.w3.org/2000/svg" width="2400" height="2400"><filter '
            f'id="f">{layers}</filter>{filled}</svg>'
        )
        self.assertRegex(self.refused(drawing.encode(), "x.svg"), "takes longer than 5 s|cannot be drawn")

    def test_a_clip_that_says_it_lasts_for_weeks_is_refused(self) -> None:
        self.assertIn(
            "“x.webm” says it lasts 576 hours; at most 24 can be added.", self.refused(clip_of_days(24), "x.webm")
        )
        self.assertLess(probe_medium(clip_of_days(0.9), "x.webm", Limits()).lasts_ms, LONGEST_MS)

    def test_kinds_that_are_not_taken_in_are_not_even_looked_into(self) -> None:
        script = b"%!PS-Adobe-3.0 EPSF-3.0\n%%BoundingBox: 0 0 9 9\n(%pipe%id) (w) file\n"
        self.assertIn("is neither a picture nor a sound nor a clip", self.refused(script, "x.eps"))
        out = io.BytesIO()
        Image.new("RGB", (8, 8)).save(out, "TIFF")
        self.assertIn("is a TIFF picture. PNG, JPEG", self.refused(out.getvalue(), "x.tif"))
