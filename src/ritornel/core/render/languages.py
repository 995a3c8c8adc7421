"""Languages as containers of films name them."""

from types import MappingProxyType

_PAIRS = """
ar=ara bg=bul ca=cat cs=ces cy=cym da=dan de=deu el=ell en=eng es=spa et=est eu=eus fa=fas fi=fin fr=fra ga=gle gd=gla
gl=glg he=heb hi=hin hr=hrv hu=hun id=ind is=isl it=ita ja=jpn ko=kor lb=ltz lt=lit lv=lav mk=mkd mt=mlt nl=nld no=nor
nb=nob nn=nno pl=pol pt=por rm=roh ro=ron ru=rus sk=slk sl=slv sq=sqi sr=srp sv=swe th=tha tr=tur uk=ukr vi=vie zh=zho
"""
_THREE_LETTERS = MappingProxyType(dict(pair.split("=") for pair in _PAIRS.split()))
"""ISO 639-2/T codes by those of ISO 639-1."""
UNDETERMINED = "und"


def language_code(tag: str) -> str:
    """The code of three letters for a language tag (BCP 47): `de-CH` is `deu`. A tag of three letters stays; an unknown
    one is `und`.
    """
    first = tag.split("-")[0].lower()
    return first if len(first) == 3 else _THREE_LETTERS.get(first, UNDETERMINED)
