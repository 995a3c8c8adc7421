"""Draws the demo's pictures: `python -m ritornel.demo.drawing`. Only needed to make them again."""

import math
from pathlib import Path

import msgspec
import skia

MEDIA = Path(__file__).parent / "media"
WIDTH, HEIGHT = 1600, 1000


def paint(colour: int, stroke: float = 0.0) -> skia.Paint:
    """A paint that fills, or strokes when a width is given. `colour` is 0xRRGGBB."""
    result = skia.Paint(AntiAlias=True, Color=0xFF000000 | colour)
    if stroke:
        result.setStyle(skia.Paint.kStroke_Style)
        result.setStrokeWidth(stroke)
        result.setStrokeCap(skia.Paint.kRound_Cap)
    return result


def shade(top: int, bottom: int, y1: float, y2: float) -> skia.Paint:
    """A paint that runs from one colour to another downwards."""
    result = skia.Paint(AntiAlias=True)
    result.setShader(skia.GradientShader.MakeLinear([(0, y1), (0, y2)], [0xFF000000 | top, 0xFF000000 | bottom]))
    return result


def polygon(canvas: skia.Canvas, points: list[tuple[float, float]], fill: skia.Paint) -> None:
    path = skia.Path()
    path.addPoly([skia.Point(*point) for point in points], True)
    canvas.drawPath(path, fill)


def dial(
    canvas: skia.Canvas, cx: float, cy: float, radius: float, hour: float, face: int = 0xF3E9CF, ink: int = 0x2A211A
) -> None:
    """A clock face with marks and two hands; `hour` 12.25 is a quarter past twelve."""
    canvas.drawCircle(cx, cy, radius * 1.12, paint(0x4B2E1C))
    canvas.drawCircle(cx, cy, radius, paint(face))
    canvas.drawCircle(cx, cy, radius * 0.93, paint(ink, max(radius * 0.012, 1)))
    for mark in range(60):
        angle = mark * math.tau / 60
        inner = 0.78 if mark % 5 == 0 else 0.88
        width = radius * (0.035 if mark % 5 == 0 else 0.01)
        sx, sy = math.sin(angle), -math.cos(angle)
        canvas.drawLine(
            cx + sx * radius * inner,
            cy + sy * radius * inner,
            cx + sx * radius * 0.92,
            cy + sy * radius * 0.92,
            paint(ink, width),
        )
    for turns, reach, width in ((hour / 12, 0.5, 0.06), (hour % 1, 0.76, 0.035)):
        angle = turns * math.tau
        sx, sy = math.sin(angle), -math.cos(angle)
        canvas.drawLine(
            cx - sx * radius * 0.12,
            cy - sy * radius * 0.12,
            cx + sx * radius * reach,
            cy + sy * radius * reach,
            paint(0x8A2456, radius * width),
        )
    canvas.drawCircle(cx, cy, radius * 0.06, paint(ink))


def hills(canvas: skia.Canvas, base: float, height: float, colour: int, step: float, lift: float) -> None:
    path = skia.Path()
    path.moveTo(0, HEIGHT)
    for x in range(0, WIDTH + 21, 20):
        path.lineTo(
            x, base - height * (0.5 + 0.3 * math.sin(x / step + lift) + 0.2 * math.sin(x / step * 2.3 + lift * 3))
        )
    path.lineTo(WIDTH, HEIGHT)
    path.close()
    canvas.drawPath(path, paint(colour))


def house(
    canvas: skia.Canvas, x: float, base: float, width: float, height: float, wall: int, roof: int, lit: int
) -> None:
    canvas.drawRect(skia.Rect.MakeXYWH(x, base - height, width, height), paint(wall))
    polygon(
        canvas,
        [(x - 14, base - height), (x + width / 2, base - height - width * 0.45), (x + width + 14, base - height)],
        paint(roof),
    )
    for row in range(int(height // 70)):
        for column in range(2):
            canvas.drawRect(
                skia.Rect.MakeXYWH(x + width * (0.2 + 0.4 * column), base - height + 24 + row * 66, width * 0.18, 34),
                paint(lit),
            )


class Light(msgspec.Struct, frozen=True, kw_only=True):
    """The colours of a scene, 0xRRGGBB, from the sky down, and what the clock shows."""

    sky: tuple[int, int]
    far: int
    near: int
    wall: int
    roof: int
    stone: tuple[int, int]
    lit: int
    sun: int
    hour: float


def town(canvas: skia.Canvas, light: Light) -> None:
    """Orlmere with its tower, in the light of an hour."""
    canvas.drawRect(skia.Rect.MakeWH(WIDTH, HEIGHT), shade(light.sky[0], light.sky[1], 0, HEIGHT))
    canvas.drawCircle(420, 230, 84, paint(light.sun))
    hills(canvas, 760, 240, light.far, 210, 0.6)
    hills(canvas, 840, 160, light.near, 150, 2.0)
    for index, (x, width, height) in enumerate(
        [(60, 150, 150), (250, 180, 220), (470, 140, 130), (640, 170, 190), (1290, 160, 200), (1470, 150, 140)]
    ):
        house(canvas, x, 900, width, height, light.wall - 0x0A0806 * (index % 3), light.roof, light.lit)
    canvas.drawRect(skia.Rect.MakeXYWH(0, 895, WIDTH, 105), shade(light.near, light.far, 895, HEIGHT))
    canvas.drawRect(skia.Rect.MakeXYWH(920, 300, 270, 600), shade(light.stone[0], light.stone[1], 300, 900))
    for y in range(340, 900, 56):
        canvas.drawLine(920, y, 1190, y, paint(light.stone[1], 2))
    canvas.drawRect(skia.Rect.MakeXYWH(896, 276, 318, 34), paint(light.stone[1]))
    polygon(canvas, [(900, 276), (1055, 60), (1210, 276)], paint(light.roof))
    canvas.drawLine(1055, 60, 1055, 14, paint(0xA86A12, 7))
    canvas.drawCircle(1055, 12, 9, paint(0xD9A441))
    dial(canvas, 1055, 430, 100, light.hour)
    canvas.drawRoundRect(skia.Rect.MakeXYWH(1010, 740, 90, 160), 45, 45, paint(0x2A1B12))
    for y in (590, 660):
        canvas.drawRoundRect(skia.Rect.MakeXYWH(1036, y, 38, 46), 19, 19, paint(light.lit))


def wheel(
    canvas: skia.Canvas, cx: float, cy: float, radius: float, teeth: int, turn: float, brass: tuple[int, int]
) -> None:
    """A brass wheel with square teeth, a rim and spokes."""
    points = []
    for tooth in range(teeth):
        for share, reach in ((0.0, 1.0), (0.42, 1.0), (0.5, 0.9), (0.92, 0.9)):
            angle = turn + (tooth + share) * math.tau / teeth
            points.append((cx + math.sin(angle) * radius * reach, cy - math.cos(angle) * radius * reach))
    polygon(canvas, points, shade(brass[0], brass[1], cy - radius, cy + radius))
    canvas.drawCircle(cx, cy, radius * 0.72, paint(0x1B343C))
    for spoke in range(5):
        angle = turn + spoke * math.tau / 5
        canvas.drawLine(
            cx,
            cy,
            cx + math.sin(angle) * radius * 0.76,
            cy - math.cos(angle) * radius * 0.76,
            paint(brass[1], radius * 0.09),
        )
    canvas.drawCircle(cx, cy, radius * 0.17, paint(brass[1]))
    canvas.drawCircle(cx, cy, radius * 0.07, paint(0x1B343C))


def works(canvas: skia.Canvas) -> None:
    """The going train behind the dial."""
    canvas.drawRect(skia.Rect.MakeWH(WIDTH, HEIGHT), shade(0x28464F, 0x14262C, 0, HEIGHT))
    for x in (140, 1460):
        canvas.drawRect(skia.Rect.MakeXYWH(x - 34, 0, 68, HEIGHT), paint(0x16303A))
        for y in range(70, HEIGHT, 170):
            canvas.drawCircle(x, y, 12, paint(0x4F6B73))
    canvas.drawRect(skia.Rect.MakeXYWH(0, 470, WIDTH, 46), paint(0x16303A))
    for cx, cy, radius, teeth, turn in (
        (520, 560, 330, 48, 0.02),
        (960, 360, 190, 28, 0.11),
        (1190, 600, 150, 22, 0.0),
        (1010, 760, 110, 16, 0.1),
    ):
        wheel(canvas, cx, cy, radius, teeth, turn, (0xEDC56E, 0x9A6A1C))


def bell(canvas: skia.Canvas) -> None:
    """The hour bell in its arch, in the evening."""
    canvas.drawRect(skia.Rect.MakeWH(WIDTH, HEIGHT), shade(0x3B2A3F, 0x120E18, 0, HEIGHT))
    arch = skia.Path()
    arch.addRRect(skia.RRect.MakeRectXY(skia.Rect.MakeXYWH(420, 120, 760, 1100), 380, 380))
    canvas.drawPath(arch, shade(0xE9A86B, 0x7E4A66, 120, 1000))
    canvas.drawRect(skia.Rect.MakeXYWH(380, 300, 840, 54), paint(0x2B1C16))
    body = skia.Path()
    body.moveTo(700, 380)
    body.cubicTo(640, 420, 650, 640, 540, 800)
    body.lineTo(1060, 800)
    body.cubicTo(950, 640, 960, 420, 900, 380)
    body.close()
    canvas.drawPath(body, shade(0xD9A441, 0x6E4512, 380, 810))
    canvas.drawRoundRect(skia.Rect.MakeXYWH(520, 790, 560, 44), 22, 22, paint(0x8A5A18))
    canvas.drawCircle(800, 862, 44, paint(0x3A2A1C))
    canvas.drawRect(skia.Rect.MakeXYWH(768, 340, 64, 50), paint(0x4B3421))
    for y in (520, 690):
        canvas.drawLine(660 - (y - 520) / 3, y, 940 + (y - 520) / 3, y, paint(0x8A5A18, 6))


def close_dial(canvas: skia.Canvas) -> None:
    """The mended dial, filling the frame."""
    canvas.drawRect(skia.Rect.MakeWH(WIDTH, HEIGHT), shade(0xB9CFCB, 0x7D9F9A, 0, HEIGHT))
    for row in range(12):
        for column in range(14):
            x = column * 124 - (62 if row % 2 else 0)
            canvas.drawRoundRect(
                skia.Rect.MakeXYWH(x + 3, row * 88 + 3, 118, 82),
                6,
                6,
                paint(0x8FB0AA if (row * 3 + column) % 4 else 0x86A8A2),
            )
    dial(canvas, 800, 500, 400, 10.17)


NOON = Light(
    sky=(0xF4CF9B, 0xE7A46F),
    far=0xC98A5C,
    near=0x9C6A45,
    wall=0xC9A27C,
    roof=0x6E3A26,
    stone=(0x9A6B4A, 0x6B452D),
    lit=0xF7E3B0,
    sun=0xFFF3D6,
    hour=12.0,
)
NIGHT = Light(
    sky=(0x101C33, 0x34436B),
    far=0x22304F,
    near=0x16213A,
    wall=0x2B3650,
    roof=0x131A2B,
    stone=(0x3A4560, 0x222B42),
    lit=0xF2C56B,
    sun=0xF4F0DC,
    hour=9.75,
)


def make_all() -> None:
    """Writes every picture."""
    scenes = {
        "tower-noon": lambda canvas: town(canvas, NOON),
        "tower-night": lambda canvas: town(canvas, NIGHT),
        "works": works,
        "bell": bell,
        "dial": close_dial,
    }
    for name, draw in scenes.items():
        surface = skia.Surface(WIDTH, HEIGHT)
        with surface as canvas:
            draw(canvas)
        surface.makeImageSnapshot().save(str(MEDIA / f"{name}.jpg"), skia.kJPEG, 86)


if __name__ == "__main__":
    make_all()
