"""Values of our own types, made by Hypothesis from the types themselves, with names that the demo show has."""

from typing import Any

from hypothesis import strategies as st
from msgspec import inspect as types

from ritornel.core.document.objects import Object
from ritornel.core.document.show import Asset, Build, Show, Slide
from ritornel.demo.orlmere import orlmere


def known_names() -> list[str]:
    """Ids and names of the demo show, so that many values mean something in it."""
    show = orlmere()
    slide = show.slide("esc-s")
    names = [entry.id for entry in (*show.slides[:4], *show.assets, *slide.objects, *slide.order)]
    return [*names, "fade", "cut", "pulse", "rise", "cue", "with", "@accent", "#204060", "waltz", "Limewash", ""]


NAMES = st.sampled_from(known_names())
LEAVES = st.one_of(
    st.none(),
    st.booleans(),
    st.integers(-3, 10),
    st.sampled_from([-1, 0, 10**6, 10**9, 86_400_000, 2**53, 2**63, -(2**53)]),
    st.floats(allow_nan=False, allow_infinity=False),
    NAMES,
    st.text(max_size=12),
)
"""What may stand anywhere in JSON."""
JSON = st.recursive(
    LEAVES,
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(NAMES | st.text(max_size=8), inner, max_size=3),
    max_leaves=8,
)


def _number(kind: Any, whole: bool) -> st.SearchStrategy[Any]:
    least = kind.ge if kind.ge is not None else kind.gt
    most = kind.le if kind.le is not None else kind.lt
    low, high = least if least is not None else -(10**6), most if most is not None else 10**7
    inside = st.integers(int(low), int(high)) if whole else st.floats(low, high, allow_nan=False)
    return inside | st.sampled_from([low, high, max(low, min(high, 0)), max(low, min(high, 500))])


def _of(kind: Any, depth: int) -> st.SearchStrategy[Any]:
    match kind:
        case types.NoneType():
            return st.none()
        case types.BoolType():
            return st.booleans()
        case types.IntType():
            return _number(kind, whole=True)
        case types.FloatType():
            return _number(kind, whole=False)
        case types.StrType():
            return NAMES | st.text(max_size=min(kind.max_length or 12, 12))
        case types.LiteralType():
            return st.sampled_from(list(kind.values))
        case types.EnumType():
            return st.sampled_from([entry.value for entry in kind.cls])
        case types.UnionType():
            return st.one_of([_of(entry, depth) for entry in kind.types])
        case types.VarTupleType() | types.ListType() | types.FrozenSetType() | types.SetType():
            return st.lists(_of(kind.item_type, depth - 1), max_size=2 if depth > 0 else 0)
        case types.TupleType():
            return st.tuples(*(_of(entry, depth - 1) for entry in kind.item_types)).map(list)
        case types.DictType():
            free = isinstance(kind.value_type, types.AnyType)
            return (
                changes() if free and depth > 0 else st.dictionaries(NAMES, _of(kind.value_type, depth - 1), max_size=2)
            )
        case types.StructType():
            return st.deferred(lambda: _struct(kind, depth))
        case types.Metadata():
            return _of(kind.type, depth)
    return JSON if depth > 0 else LEAVES


def _struct(kind: Any, depth: int) -> st.SearchStrategy[Any]:
    needed = {field.encode_name: _of(field.type, depth - 1) for field in kind.fields if field.required}
    free = (
        {field.encode_name: _of(field.type, depth - 1) for field in kind.fields if not field.required}
        if depth > 0
        else {}
    )
    tag = {kind.tag_field: st.just(kind.tag)} if kind.tag_field else {}
    some = st.sets(st.sampled_from(sorted(free)), max_size=3) if free else st.just(set())
    return some.flatmap(
        lambda names: st.fixed_dictionaries({**tag, **needed, **{name: free[name] for name in sorted(names)}})
    )


def values_of(kind: Any, depth: int = 4) -> st.SearchStrategy[Any]:
    """Values of a type as JSON holds them: within its bounds, with all that it needs, and some of what it may have."""
    return _of(types.type_info(kind), depth)


def _fields(kind: Any) -> dict[str, Any]:
    told = types.type_info(kind)
    kinds = told.types if isinstance(told, types.UnionType) else (told,)
    return {
        field.encode_name: field.type
        for entry in kinds
        if isinstance(entry, types.StructType)
        for field in entry.fields
    }


def changes() -> st.SearchStrategy[dict[str, Any]]:
    """Some fields of something, with values for them: {"name": ..., "box": {...}}."""
    fields = {
        name: kind
        for whole in (Slide, Object, Build, Asset, Show)
        for name, kind in _fields(whole).items()
        if name not in ("slides", "assets")
    }
    one = st.sampled_from(sorted(fields)).flatmap(lambda name: st.tuples(st.just(name), _of(fields[name], 2)))
    return st.lists(one, min_size=1, max_size=3).map(dict)
