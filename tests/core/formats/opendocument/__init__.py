"""Tests of OpenDocument presentations, and what they make presentations with."""

import io
import zipfile

from PIL import Image

from ritornel.core.formats.opendocument.names import MEDIA_TYPE, SPACES

DECLARED = " ".join(f'xmlns:{prefix}="{uri}"' for prefix, uri in SPACES.items() if prefix not in ("xml", "manifest"))
STYLES = """
<office:styles>
 <style:default-style style:family="graphic"><style:text-properties fo:font-size="18pt" fo:color="#223344" fo:font-family="Georgia"/></style:default-style>
 <style:style style:name="Plain-outline2" style:family="presentation"><style:text-properties fo:font-size="14pt"/></style:style>
 <draw:gradient draw:name="Dusk" draw:style="linear" draw:start-color="#102030" draw:end-color="#405060" draw:angle="0"/>
</office:styles>
<office:automatic-styles>
 <style:page-layout style:name="PM"><style:page-layout-properties fo:page-width="25.4cm" fo:page-height="19.05cm"/></style:page-layout>
 <style:style style:name="mdp" style:family="drawing-page"><style:drawing-page-properties draw:fill="solid" draw:fill-color="#f0e8d8"/></style:style>
</office:automatic-styles>
<office:master-styles>
 <style:master-page style:name="Plain" style:page-layout-name="PM" draw:style-name="mdp">
  <draw:rect draw:name="Band" svg:x="0cm" svg:y="0cm" svg:width="25.4cm" svg:height="1cm"/>
  <draw:frame presentation:class="title" presentation:placeholder="true" svg:x="1cm" svg:y="1cm" svg:width="20cm" svg:height="2cm"><draw:text-box/></draw:frame>
 </style:master-page>
</office:master-styles>
"""


def presentation(
    pages: str,
    automatic: str = "",
    styles: str = STYLES,
    version: str = "1.3",
    kind: str = MEDIA_TYPE,
    files: dict[str, bytes] | None = None,
    more: str = "",
) -> bytes:
    """A package made by hand."""
    content = (
        f'<?xml version="1.0" encoding="UTF-8"?><office:document-content {DECLARED} '
        f'office:version="{version}"><office:automatic-styles>{automatic}'
        f"</office:automatic-styles><office:body><office:presentation>{pages}{more}</office:presentation></office:body></office:document-content>"
    )
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as bundle:
        bundle.writestr("mimetype", kind, zipfile.ZIP_STORED)
        bundle.writestr("content.xml", content)
        bundle.writestr(
            "styles.xml",
            f'<?xml version="1.0"?><office:document-styles {DECLARED} '
            f'office:version="{version}">{styles}</office:document-styles>',
        )
        for place, data in (files or {}).items():
            bundle.writestr(place, data)
    return out.getvalue()


def page(inside: str, name: str = "page1", style: str = "") -> str:
    """One page on the master made by hand."""
    return f'<draw:page draw:name="{name}" draw:style-name="{style}" draw:master-page-name="Plain">{inside}</draw:page>'


def png(width: int = 40, height: int = 20) -> bytes:
    """A plain picture."""
    out = io.BytesIO()
    Image.new("RGB", (width, height), "#8a2456").save(out, "PNG")
    return out.getvalue()


PICTURE = '<draw:frame svg:width="2in" svg:height="1in"><draw:image xlink:href="Pictures/a.png"/></draw:frame>'
CHART = '<draw:frame svg:width="2in" svg:height="1in"><draw:object xlink:href="./Object 1"/></draw:frame>'
LOSSY = presentation(page(PICTURE + CHART), files={"Pictures/a.png": png()})
"""One page with a picture and a chart: something is lost."""
