"""Pictures of H.264 that repeat the picture before them, written without an encoder.

Source: ITU-T H.264 (08/2021), sections 7.3.2 parameter sets, 7.3.3 slice header, 7.3.4 slice data, 9.3 CABAC.
"""

from collections.abc import Iterator

import msgspec

from ritornel.core.errors import RitornelError

SLICE, IDR_SLICE, SEQUENCE_SET, PICTURE_SET = 1, 5, 7, 8
"""Kinds of units (table 7-1)."""
HIGH_PROFILES = (44, 83, 86, 100, 110, 118, 122, 128, 134, 135, 138, 139, 244)
"""Profiles whose sequence sets say more (7.3.2.1.1)."""
P_SLICE = 5
"""Every slice of the picture is a P slice (table 7-6)."""
WORST_QP = 51
"""No block of a repeated picture has anything to quantize. With this value the one context it needs begins where a
skipped block is likely, and stays there (9.3.1.1, context 11: ((23 * 51) >> 4) + 33 = 106, and 106 - 64 = 42).
"""
FIRST_STATE, LAST_STATE = 42, 62
# Table 9-44 from state 42 to state 62: how wide the unlikely part is, for each quarter of the range.
UNLIKELY = (
    (16, 20, 23, 27), (15, 19, 22, 25), (14, 18, 21, 24), (14, 17, 20, 23), (13, 16, 19, 22), (12, 15, 18, 21),
    (12, 14, 17, 20), (11, 14, 16, 19), (11, 13, 15, 18), (10, 12, 15, 17), (10, 12, 14, 16), (9, 11, 13, 15),
    (9, 11, 12, 14), (8, 10, 12, 14), (8, 9, 11, 13), (7, 9, 11, 12), (7, 9, 10, 12), (7, 8, 10, 11),
    (6, 8, 9, 11), (6, 7, 9, 10), (6, 7, 8, 9),
)  # fmt: skip


class NoRepeats(RitornelError):
    """The stream is of a kind in which pictures cannot be repeated this way."""


class _Bits:
    """Reads a unit's bits, from the first."""

    def __init__(self, unit: bytes) -> None:
        plain = unit.replace(b"\0\0\3", b"\0\0")
        self._bits, self._at = f"{int.from_bytes(plain):0{8 * len(plain)}b}", 0

    def number(self, count: int) -> int:
        self._at += count
        return int(self._bits[self._at - count : self._at], 2) if count else 0

    def flag(self) -> bool:
        return self.number(1) == 1

    def unsigned(self) -> int:
        """An Exp-Golomb code (9.1)."""
        zeros = self._bits.index("1", self._at) - self._at
        return self.number(2 * zeros + 1) - 1

    def signed(self) -> int:
        code = self.unsigned()
        return (code + 1) // 2 if code % 2 else -(code // 2)


def _unsigned(value: int) -> str:
    digits = f"{value + 1:b}"
    return "0" * (len(digits) - 1) + digits


def _signed(value: int) -> str:
    return _unsigned(2 * value - 1 if value > 0 else -2 * value)


def units_of(data: bytes) -> Iterator[bytes]:
    """The units of a byte stream, without their start codes (annex B)."""
    for part in data.split(b"\0\0\1")[1:]:
        yield part.rstrip(b"\0")


class ParameterSets(msgspec.Struct, frozen=True, kw_only=True):
    """What the slice headers of a stream depend on."""

    picture_set: int
    frame_number_bits: int
    order_bits: int
    blocks: int
    weighted: bool
    references: int
    first_qp: int
    says_deblocking: bool

    @classmethod
    def read(cls, extradata: bytes) -> "ParameterSets":
        """The sets as an encoder gives them, in a byte stream. Raises NoRepeats for interlaced pictures, for several
        slice groups, and for streams that are not coded by CABAC with an order count in each picture.
        """
        units = {unit[0] & 31: unit for unit in units_of(extradata)}
        sequence, picture = _Bits(units[SEQUENCE_SET][1:]), _Bits(units[PICTURE_SET][1:])
        profile, _ = sequence.number(8), sequence.number(16)
        sequence.unsigned()
        plain = True
        if profile in HIGH_PROFILES:
            chroma, *_ = sequence.unsigned(), sequence.unsigned(), sequence.unsigned(), sequence.flag()
            plain = chroma == 1 and not sequence.flag()
        frame_number_bits = sequence.unsigned() + 4
        plain = plain and sequence.unsigned() == 0
        order_bits = sequence.unsigned() + 4
        sequence.unsigned(), sequence.flag()
        blocks = (sequence.unsigned() + 1) * (sequence.unsigned() + 1)
        plain = plain and sequence.flag()
        number, _ = picture.unsigned(), picture.unsigned()
        plain = plain and picture.flag() and not picture.flag() and picture.unsigned() == 0
        references, _ = picture.unsigned() + 1, picture.unsigned()
        weighted, _ = picture.flag(), picture.number(2)
        first_qp, *_ = picture.signed() + 26, picture.signed(), picture.signed()
        says_deblocking, _, redundant = picture.flag(), picture.flag(), picture.flag()
        if not plain or redundant:
            raise NoRepeats("A film of this kind cannot repeat pictures without encoding them.")
        return cls(
            picture_set=number,
            frame_number_bits=frame_number_bits,
            order_bits=order_bits,
            blocks=blocks,
            weighted=weighted,
            references=references,
            first_qp=first_qp,
            says_deblocking=says_deblocking,
        )


class PlaceInStream(msgspec.Struct, frozen=True):
    """The place of a picture among those since the last IDR picture: its number among reference pictures, and its place
    in display order, both modulo what the stream's fields hold.
    """

    frame_number: int
    order: int


def place_of(packet: bytes, sets: ParameterSets) -> PlaceInStream:
    """The place of an encoded picture, a byte stream."""
    unit = next(unit for unit in units_of(packet) if unit[0] & 31 in (SLICE, IDR_SLICE))
    header = _Bits(unit[1:32])
    for _ in range(3):
        header.unsigned()
    frame_number = header.number(sets.frame_number_bits)
    if unit[0] & 31 == IDR_SLICE:
        header.unsigned()
    return PlaceInStream(frame_number, header.number(sets.order_bits))


def skipped_blocks(count: int) -> str:
    """The bits of a slice in which all `count` macroblocks are skipped, with the bit that ends it (9.3.4.2)."""
    bits: list[str] = []
    low, wide, state, waiting, first = 0, 510, FIRST_STATE, 0, True

    def put(bit: int) -> None:
        nonlocal waiting, first
        if not first:
            bits.append(str(bit))
        first = False
        bits.append(str(1 - bit) * waiting)
        waiting = 0

    def renormalize() -> None:
        nonlocal low, wide, waiting
        while wide < 256:
            if low < 256:
                put(0)
            elif low >= 512:
                low -= 512
                put(1)
            else:
                low -= 256
                waiting += 1
            low, wide = low << 1, wide << 1

    for left in range(count - 1, -1, -1):
        # This block is skipped, as is likely ...
        wide -= UNLIKELY[state - FIRST_STATE][wide >> 6 & 3]
        state = min(state + 1, LAST_STATE)
        renormalize()
        # ... and it is the last, or not.
        wide -= 2
        if left:
            renormalize()
    low, wide = low + wide, 2
    renormalize()
    put(low >> 9 & 1)
    return "".join(bits) + f"{low >> 7 & 3 | 1:02b}"


class Repeats:
    """Writes pictures that repeat the one before. The encoder's next picture must be an IDR picture."""

    def __init__(self, extradata: bytes) -> None:
        self._sets = ParameterSets.read(extradata)
        self._blocks = skipped_blocks(self._sets.blocks)

    def after(self, packet: bytes, count: int) -> Iterator[bytes]:
        """`count` pictures after the encoded reference picture `packet`, each a byte stream."""
        sets, place = self._sets, place_of(packet, self._sets)
        for number in range(1, count + 1):
            yield self._picture(
                (place.frame_number + number) % (1 << sets.frame_number_bits),
                (place.order + 2 * number) % (1 << sets.order_bits),
            )

    def _picture(self, frame_number: int, order: int) -> bytes:
        sets = self._sets
        header = [
            _unsigned(0),
            _unsigned(P_SLICE),
            _unsigned(sets.picture_set),
            f"{frame_number:0{sets.frame_number_bits}b}",
            f"{order:0{sets.order_bits}b}",
            # One picture to refer to, the newest.
            "0" if sets.references == 1 else "1" + _unsigned(0),
            "0",
            # Its weights are plain.
            _unsigned(0) * 2 + "00" if sets.weighted else "",
            "0",
            _unsigned(0),
            _signed(WORST_QP - sets.first_qp),
            _unsigned(1) if sets.says_deblocking else "",
        ]
        bits = "".join(header)
        bits += "1" * (-len(bits) % 8) + self._blocks
        bits += "0" * (-len(bits) % 8)
        content = int(bits, 2).to_bytes(len(bits) // 8)
        return b"\0\0\0\1" + bytes([2 << 5 | SLICE]) + _escape(content)


def _escape(content: bytes) -> bytes:
    """The content of a unit, escaped so that nothing in it looks like a start code (7.4.1)."""
    out = bytearray()
    zeros = 0
    for byte in content:
        if zeros == 2 and byte <= 3:
            out.append(3)
            zeros = 0
        out.append(byte)
        zeros = zeros + 1 if byte == 0 else 0
    return bytes(out)
