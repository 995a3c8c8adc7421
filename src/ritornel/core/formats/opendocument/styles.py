"""Style names resolved: a style's own properties over its parents', over the default of its family."""

from collections.abc import Mapping
from typing import Literal
from xml.etree.ElementTree import Element

import msgspec

from ritornel.core.formats.opendocument.names import attribute_of, children_of, full, length_px, share, short

Group = Literal["graphic", "paragraph", "text", "drawing-page", "page-layout"]
Properties = Mapping[str, str]
LONGEST_CHAIN = 40


class StyleProperties(msgspec.Struct, frozen=True):
    """Properties by their short names, a group each."""

    graphic: Properties = {}
    paragraph: Properties = {}
    text: Properties = {}
    page: Properties = {}


def _scaled_size(before: str, after: str) -> str:
    """A size in percent is relative to the size below it."""
    part = share(after)
    base = length_px(before) if part is not None else None
    return f"{base * part}px" if base is not None and part is not None else after


def over(base: Properties, upper: Properties) -> dict[str, str]:
    """Properties laid over others; sizes in percent are calculated."""
    merged = {**base, **upper}
    if "fo:font-size" in base and "fo:font-size" in upper:
        merged["fo:font-size"] = _scaled_size(base["fo:font-size"], upper["fo:font-size"])
    return merged


class Styles:
    """All styles of a presentation.

    Automatic styles of masters and of slides are kept apart: they may have the same names.
    """

    def __init__(self, content: Element, styles: Element) -> None:
        self._common: dict[tuple[str, str], Element] = {}
        self._automatic: dict[bool, dict[tuple[str, str], Element]] = {False: {}, True: {}}
        self._defaults: dict[str, Element] = {}
        self._named: dict[tuple[str, str], Element] = {}
        self.masters: dict[str, Element] = {}
        self._layouts: dict[str, Element] = {}
        self._lists: dict[str, Element] = {}
        self._looks: dict[tuple[str, str, bool], StyleProperties] = {}
        for root, on_master in ((styles, True), (content, False)):
            for part in root:
                match short(part.tag):
                    case "office:styles":
                        self._take(part, self._common)
                    case "office:automatic-styles":
                        self._take(part, self._automatic[on_master])
                    case "office:master-styles":
                        self.masters |= {
                            attribute_of(entry, "style:name"): entry for entry in children_of(part, "style:master-page")
                        }

    def _take(self, part: Element, into: dict[tuple[str, str], Element]) -> None:
        for entry in part:
            match short(entry.tag):
                case "style:style":
                    into[(attribute_of(entry, "style:family"), attribute_of(entry, "style:name"))] = entry
                case "style:default-style":
                    self._defaults[attribute_of(entry, "style:family")] = entry
                case "style:page-layout":
                    self._layouts[attribute_of(entry, "style:name")] = entry
                case "text:list-style":
                    self._lists[attribute_of(entry, "style:name")] = entry
                case "draw:gradient" | "draw:fill-image" | "draw:stroke-dash" | "draw:hatch" | "draw:opacity":
                    self._named[(short(entry.tag), attribute_of(entry, "draw:name"))] = entry

    def named(self, kind: str, name: str) -> Element | None:
        """A gradient, a fill picture or a dash by its name."""
        return self._named.get((kind, name))

    def list_style(self, name: str) -> Element | None:
        """A list style by its name."""
        return self._lists.get(name)

    def page_layout(self, master: Element) -> Properties:
        """The properties of a master's page, such as its size."""
        entry = self._layouts.get(attribute_of(master, "style:page-layout-name"))
        return _properties(entry, "page-layout") if entry is not None else {}

    def style(self, family: str, name: str, on_master: bool = False) -> Element | None:
        """The style with this name, or None."""
        return self._automatic[on_master].get((family, name), self._common.get((family, name)))

    def look(self, family: str, name: str, on_master: bool = False) -> StyleProperties:
        """The properties of a name. An unknown name gives the default of its family."""
        key = (family, name, on_master)
        if key not in self._looks:
            self._looks[key] = self._resolved(*key)
        return self._looks[key]

    def _resolved(self, family: str, name: str, on_master: bool) -> StyleProperties:
        chain: list[Element] = []
        found = self.style(family, name, on_master) if name else None
        while found is not None and found not in chain and len(chain) < LONGEST_CHAIN:
            chain.append(found)
            parent = attribute_of(found, "style:parent-style-name")
            found = (
                (self.style(family, parent, on_master) or self.style("graphic", parent, on_master)) if parent else None
            )
        default = self._defaults.get("graphic" if family == "presentation" else family)
        layers = [*([default] if default is not None else []), *reversed(chain)]
        groups: dict[str, dict[str, str]] = {}
        for group in ("graphic", "paragraph", "text", "drawing-page"):
            merged: dict[str, str] = {}
            for entry in layers:
                merged = over(merged, _properties(entry, group))
            groups[group] = merged
        return StyleProperties(groups["graphic"], groups["paragraph"], groups["text"], groups["drawing-page"])


def _properties(entry: Element, group: str) -> dict[str, str]:
    found = entry.find(full(f"style:{group}-properties"))
    return {short(key): value for key, value in found.attrib.items()} if found is not None else {}
