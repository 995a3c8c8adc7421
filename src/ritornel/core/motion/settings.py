"""Settings of effects and transitions: structs whose fields the panel's controls are made from."""

from typing import Annotated, Any, Literal, get_args, get_origin, get_type_hints

import msgspec

from ritornel.core.document.decoding import from_builtins


class NoSettings(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """For an effect or transition without settings."""


def read_settings(given: dict[str, Any], kind: type[msgspec.Struct], subject: str) -> Any:
    """The settings with defaults filled in. Raises BadValue for unknown fields or values out of range."""
    return from_builtins(given, kind, subject)


def controls_of(kind: type[msgspec.Struct]) -> list[dict[str, Any]]:
    """One entry a field:

    `name`, `title`, `unit`, `default`, and `choices`, `least` and `most`, or `path` (drawn on the stage).
    """
    result: list[dict[str, Any]] = []
    hints = get_type_hints(kind, include_extras=True)
    for field in msgspec.structs.fields(kind):
        hint = hints[field.name]
        entry: dict[str, Any] = {
            "name": field.name,
            "title": field.name.removesuffix("_px").removesuffix("_deg").replace("_", " ").capitalize(),
            "default": field.default,
        }
        entry["unit"] = "px" if field.name.endswith("_px") else "°" if field.name.endswith("_deg") else ""
        if get_origin(hint) is Literal:
            entry["choices"] = list(get_args(hint))
        elif get_origin(hint) is Annotated:
            meta = next(item for item in get_args(hint) if isinstance(item, msgspec.Meta))
            entry |= {"path": True} if meta.pattern else {"least": meta.ge, "most": meta.le}
        result.append(entry)
    return result
