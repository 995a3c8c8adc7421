"""A validator: what OpenDocument 1.2 allows where, from the tables of odfpy, which were made from the published
schema.
"""

from collections.abc import Iterator
from xml.etree.ElementTree import Element, fromstring

from odf import grammar

Name = tuple[str, str]
NEWER = {("manifest", "version")}
"""What came with OpenDocument 1.2 or later, and the tables lack."""


def _name(tag: str) -> Name:
    uri, _, bare = tag.removeprefix("{").rpartition("}")
    return uri, bare


def faults(document: bytes) -> list[str]:
    """Everything in the document that its grammar does not allow."""
    root = fromstring(document)
    return sorted(set(_faults(root, _name(root.tag))))


def _faults(element: Element, name: Name) -> Iterator[str]:
    if name not in grammar.allowed_attributes and name not in grammar.allowed_children:
        yield f"there is no element {name[1]}"
    allowed = grammar.allowed_attributes.get(name)
    for key in element.attrib:
        # None allows all: elements whose properties the schema leaves open.
        if (
            allowed is not None
            and _name(key) not in allowed
            and _name(key)[1] != "id"
            and (name[1], _name(key)[1]) not in NEWER
        ):
            yield f"{name[1]} may not have {key}"
    for key in grammar.required_attributes.get(name) or ():
        if f"{{{key[0]}}}{key[1]}" not in element.attrib:
            yield f"{name[1]} lacks {key[1]}"
    if (element.text or "").strip() and name not in grammar.allows_text:
        yield f"{name[1]} may hold no text"
    children = grammar.allowed_children.get(name)
    for child in element:
        if children is not None and _name(child.tag) not in children:
            yield f"{name[1]} may not hold {_name(child.tag)[1]}"
        yield from _faults(child, _name(child.tag))
