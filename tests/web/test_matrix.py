"""Who gets in where: every address of the program, asked for by everybody who may come to it."""

import json
from collections.abc import Iterator
from typing import Any, NamedTuple

from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import transaction
from django.urls import URLPattern, URLResolver, get_resolver

from ritornel.core.formats.exports import EXPORTS
from ritornel.core.render.version import RENDERER
from tests.web.cast import MEMBERS, ROLES, SIGNED_IN, CastTest
from tests.web.test_shelf import png

ALL = ROLES
NOBODY: tuple[str, ...] = ()
OWNER = ("owner",)
EDIT = ("owner", "editor")
RECORD = (*EDIT, "recorder")
WATCH = ("owner", "editor", "commenter", "watcher")
TALK = ("owner", "editor", "recorder", "commenter")
SEE = MEMBERS
LET_IN = ("owner", "guest")

SHOW = "/shows/clock/"
FILE = "a file"
"""Stands for an upload in what is sent."""


class Row(NamedTuple):
    """One kind of request: the name of its address, the address with {names} of `CastTest.named`, who gets in, and what
    is sent.
    """

    name: str
    where: str
    who: tuple[str, ...]
    sent: dict[str, Any] | None = None
    form: bool = False


def pages(who: tuple[str, ...], *lines: tuple[str, str]) -> list[Row]:
    """Addresses that only tell."""
    return [Row(name, where, who) for name, where in lines]


def acts(who: tuple[str, ...], *lines: tuple[str, str, dict[str, Any]], form: bool = False) -> list[Row]:
    """Addresses that change something."""
    return [Row(name, where, who, sent, form) for name, where, sent in lines]


ROWS: list[Row] = [
    # The way in, and what belongs to nobody.
    *pages(
        ALL,
        ("favicon.ico", "/favicon.ico"),
        ("sign-in", "/sign-in/"),
        ("invitation", "/invited/{link}/"),
    ),
    *acts(
        ALL,
        ("sign-in", "/sign-in/", {"username": "ines", "password": "wrong"}),
        ("sign-out", "/sign-out/", {}),
        form=True,
    ),
    *acts(ALL, ("faults", "/faults", {"words": "x is not defined", "page": "/", "where": "a.js:1"})),
    # One's own.
    *pages(
        SIGNED_IN,
        ("shows", "/"),
        ("start", "/shows/start"),
        ("starter-still", "/starters/{starter}/1.png"),
        ("samples", "/shows/samples.json"),
        ("themes", "/shows/themes.json"),
        ("handed-in", "/handed-in/"),
        ("account", "/account/"),
        ("mail", "/mail/"),
        ("bin", "/bin/"),
        ("help", "/help/"),
        ("help-topic", "/help/compose"),
        ("example", "/help/example.json"),
        ("example-media", "/help/example/noon"),
    ),
    *pages(ALL, ("post/", "/post/")),
    *acts(
        SIGNED_IN,
        ("new-show", "/shows/new", {"title": "A new one"}),
        ("begin-first-show", "/help/first-show", {}),
        ("change-name", "/account/name", {"name": "Me"}),
        ("change-password", "/account/password", {"old": "x", "new": "y"}),
        ("ask-for-proof", "/account/addresses", {"address": "me@orlmere.example"}),
        ("from-archive", "/shows/from-archive", {"file": FILE}),
        ("from-pdf", "/shows/from-pdf", {"file": FILE}),
        ("from-presentation", "/shows/from-presentation", {"file": FILE}),
        ("from-outline", "/shows/from-outline", {"file": FILE}),
        form=True,
    ),
    *acts(OWNER, ("forget-address", "/account/addresses/{address_pk}/forget", {}), form=True),
    *pages(OWNER, ("prove-address", "/account/proof/{proof}/"), ("reading", "/readings/{reading}.json")),
    *acts(
        OWNER, ("make-reading", "/readings/{reading}/make", {}), ("cancel-reading", "/readings/{reading}/cancel", {})
    ),
    *pages(("other",), ("handed-in-file", "/handed-in/{handed}/file")),
    *acts(("other",), ("put-away", "/handed-in/{handed}/put-away", {}), form=True),
    *acts(OWNER, ("withdraw-hand-in", "/handed-in/{handed}/withdraw", {}), form=True),
    # The show and who makes it.
    *pages(
        OWNER,
        ("people", f"{SHOW}people"),
        ("release", f"{SHOW}release"),
        ("edition-folder", f"{SHOW}editions/1.zip"),
        ("first-show-state", f"{SHOW}first.json"),
        ("fix-preview", f"{SHOW}checks/fix.json"),
        ("checks", f"{SHOW}checks.json"),
        ("film-file", f"{SHOW}films/{{film}}/file"),
        ("run-events", f"{SHOW}run/events"),
    ),
    *acts(
        OWNER,
        ("run-say", f"{SHOW}run/say", {}),
        ("leave-first-show", f"{SHOW}first/leave", {}),
        ("remove-edition", f"{SHOW}editions/1/remove", {}),
        ("hand-in", f"{SHOW}films/{{film}}/hand-in", {"to": "odo"}),
        ("remove-film", f"{SHOW}films/{{film}}/remove", {}),
        ("film-again", f"{SHOW}films/{{failed_film}}/again", {}),
        ("cancel-film", f"{SHOW}films/{{waiting_film}}/cancel", {}),
        ("films", f"{SHOW}films", {"kind": "pdf", "style": "slides"}),
        ("set-aside", f"{SHOW}checks/aside", {"finding": "x", "reason": "y"}),
        ("editions", f"{SHOW}editions", {"audience": "anyone"}),
        ("invite", f"{SHOW}people/invite", {"address": "x@orlmere.example", "role": "watch"}),
        ("withdraw", f"{SHOW}people/{{invitation}}/withdraw", {}),
        ("restore-invitation", f"{SHOW}people/{{invitation}}/restore", {}),
        ("change-role", f"{SHOW}people/{{invitation}}/change", {"role": "comment"}),
        ("release-settings", f"{SHOW}release/settings", {"loops": True}),
        ("guests", f"{SHOW}guests", {"addresses": "x@orlmere.example"}),
        ("shut-out", f"{SHOW}guests/{{guest}}", {}),
    ),
    *pages(
        EDIT,
        ("compose", SHOW),
        ("archive", f"{SHOW}archive"),
        ("score", f"{SHOW}score.json"),
        ("changes", f"{SHOW}changes.json?since=0"),
        ("slide", f"{SHOW}slides/esc-s.json"),
        ("slide-ties", f"{SHOW}slides/esc-s/ties.json"),
        ("differences", f"{SHOW}differences.json?since=0"),
        ("loudness", f"{SHOW}loudness.json"),
        ("catalogue", f"{SHOW}catalogue"),
        ("catalogue-sample", f"{SHOW}catalogue/picture-bell/sample"),
        ("smalls", f"{SHOW}shelf/smalls.json"),
        ("theme-preview", f"{SHOW}slides/esc-s/theme/{{theme}}.png"),
        ("presentation-losses", f"{SHOW}presentation.json"),
        ("presentation", f"{SHOW}presentation.odp"),
        *(("export", f"{SHOW}{address}") for address in EXPORTS),
        ("events", f"{SHOW}events"),
        ("offline-weight", f"{SHOW}offline.json"),
        ("offline-file", f"{SHOW}offline.html"),
        ("offline-folder", f"{SHOW}offline.zip"),
        ("rehearse", f"{SHOW}rehearse"),
        ("plan", f"{SHOW}takes/plan.json"),
        ("compare-takes", f"{SHOW}takes/compare.json"),
        ("take-drawings", f"{SHOW}takes/1/drawings.zip"),
        ("lectern", f"{SHOW}lectern"),
        ("house", f"{SHOW}house"),
        ("run-state", f"{SHOW}run.json"),
    ),
    *acts(
        EDIT,
        ("preview", f"{SHOW}preview", {"slide_id": "esc-s", "builds": []}),
        ("edit", f"{SHOW}edit", {"revision": 0, "edit": {"do": "change show", "changes": {"title": "Another"}}}),
        ("voice-pairs", f"{SHOW}voices/pairs", {"assets": []}),
        ("would", f"{SHOW}would", {"edit": {"do": "change show", "changes": {"title": "Another"}}}),
        ("lengths", f"{SHOW}lengths", {}),
        ("undo", f"{SHOW}undo", {}),
        ("redo", f"{SHOW}redo", {}),
        ("shelf-library", f"{SHOW}shelf/library/waltz", {}),
        ("catalogue-bring", f"{SHOW}catalogue/picture-bell", {}),
        ("videos", f"{SHOW}videos", {"address": "nowhere"}),
        ("slides-from-pictures", f"{SHOW}slides-from-pictures", {"assets": []}),
        ("bring", f"{SHOW}bring", {"from": "clock"}),
        ("timings-in", f"{SHOW}timings", {}),
        ("here", f"{SHOW}here", {"window": "w", "slide_id": "esc-s"}),
        ("takes", f"{SHOW}takes", {"events": [], "ended_ms": 5}),
        ("take-timing", f"{SHOW}takes/timing", {"source": 1, "try": True}),
        ("use-take", f"{SHOW}takes/1/use", {}),
        ("follow-none", f"{SHOW}takes/follow-none", {}),
        ("bring-entry-back", f"{SHOW}bin/take/{{binned_take}}/back", {}),
        ("remove-take", f"{SHOW}takes/1/remove", {}),
        ("run-begin", f"{SHOW}run", {}),
        ("run-end", f"{SHOW}run/end", {}),
        ("record-pick", f"{SHOW}record/pick", {"slide_id": "men-s", "recording": None}),
    ),
    *acts(
        EDIT,
        ("name-point", f"{SHOW}history/points", {"name": "Before"}),
        ("return-to", f"{SHOW}history/0/back", {}),
        ("remove-entry", f"{SHOW}bin/take/{{binned_take}}/remove", {}),
        form=True,
    ),
    *pages(
        EDIT,
        ("shelf-elsewhere", f"{SHOW}shelf/elsewhere.json"),
        ("history", f"{SHOW}history"),
        ("show-bin", f"{SHOW}bin"),
        ("point", f"{SHOW}history/0"),
        ("point-picture", f"{SHOW}history/0/esc-s.png"),
        ("point-media", f"{SHOW}history/0/media/night/100"),
        ("performance", f"{SHOW}performance.json?revision=0"),
    ),
    *acts(
        EDIT,
        ("shelf", f"{SHOW}shelf", {"file": FILE}),
        ("media-again", f"{SHOW}media/night/again", {"file": FILE}),
        ("captions-in", f"{SHOW}captions", {"file": FILE}),
        form=True,
    ),
    *pages(
        WATCH,
        ("play", f"{SHOW}play"),
        ("performance", f"{SHOW}performance.json"),
        ("media", f"{SHOW}media/night"),
        ("small", f"{SHOW}media/night/v{RENDERER}/small"),
        ("wave", f"{SHOW}media/waltz/v{RENDERER}/wave.json"),
        ("wave-peaks", f"{SHOW}media/waltz/v{RENDERER}/wave/25/0"),
    ),
    # What stands on slides that a recorder sees, too.
    *pages(
        SEE,
        ("media", f"{SHOW}media/works"),
        ("media-light", f"{SHOW}media/{{clip}}/v{RENDERER}/light"),
        ("media-tempo", f"{SHOW}media/{{clip}}/v{RENDERER}/at/150"),
        ("small", f"{SHOW}media/works/v{RENDERER}/small"),
        ("strip", f"{SHOW}media/{{clip}}/v{RENDERER}/strip"),
        ("strip-ready", f"{SHOW}media/{{clip}}/v{RENDERER}/strip.json"),
        ("wave", f"{SHOW}media/{{clip}}/v{RENDERER}/wave.json"),
        ("thumb", "{thumb}"),
    ),
    *pages(
        TALK,
        ("comments", f"{SHOW}comments"),
        ("comments-state", f"{SHOW}comments.json"),
    ),
    *acts(
        TALK,
        ("say", f"{SHOW}comments/say", {"slide_id": "esc-s", "text": "Good."}),
        ("close-comment", f"{SHOW}comments/{{comment}}/close", {}),
    ),
    *pages(
        RECORD,
        ("record", f"{SHOW}record?section=esc-s"),
        ("record-state", f"{SHOW}record.json?section=esc-s"),
        ("record-show", f"{SHOW}record/show.json?section=esc-s"),
        ("record-camera", f"{SHOW}record/camera.json?section=esc-s"),
        ("record-picked", f"{SHOW}record/picked.json?section=esc-s"),
        ("recorded-media", f"{SHOW}record/media/{{recorded}}"),
        ("record-peaks", f"{SHOW}record/{{recording}}/peaks"),
    ),
    *acts(
        RECORD,
        ("record-pick", f"{SHOW}record/pick", {"slide_id": "esc-s", "recording": None}),
        ("record-keep", f"{SHOW}record/keep?section=esc-s", {}),
        ("record-begin", f"{SHOW}record/begin", {"section": "esc-s", "writer": "w"}),
        ("record-remove", f"{SHOW}record/{{recording}}/remove", {}),
    ),
    *acts(RECORD, ("record-more", f"{SHOW}record/{{recording}}/more", {"about": "{}"}), form=True),
    *acts(
        EDIT,
        ("clip-begin", f"{SHOW}record/clip", {"kind": "voice", "writer": "w"}),
        ("clip-place", f"{SHOW}record/{{recording}}/place", {"role": "shelf"}),
    ),
    *pages(EDIT, ("clip", f"{SHOW}record/{{recording}}/clip")),
    # A run: by its codes, as long as who started it may edit the show.
    *pages(
        ALL,
        ("house-at", "/house/{house}/"),
        ("house-performance", "/house/{house}/performance.json"),
        ("house-events", "/house/{house}/events"),
        ("house-media", "/house/{house}/media/night/100"),
        ("remote", "/remote/{remote}/"),
        ("remote-events", "/remote/{remote}/events"),
    ),
    *acts(ALL, ("remote-press", "/remote/{remote}/press", {"cue": "next"})),
    *pages(
        NOBODY,
        ("house-at", "/house/{left_house}/"),
        ("house-performance", "/house/{left_house}/performance.json"),
        ("house-events", "/house/{left_house}/events"),
        ("house-media", "/house/{left_house}/media/night/100"),
        ("remote", "/remote/{left_remote}/"),
        ("remote-events", "/remote/{left_remote}/events"),
        ("house-at", "/house/{remote}/"),
        ("remote", "/remote/{house}/"),
    ),
    *acts(NOBODY, ("remote-press", "/remote/{left_remote}/press", {"cue": "next"})),
    # A release for who was let in.
    *pages(
        LET_IN,
        ("watch", "/s/{address}/"),
        ("release-news", "/s/{address}/news"),
        ("transcript", "/s/{address}/transcript"),
        ("edition-file", "/s/{address}/1/performance.json"),
        ("edition-file", "/s/{address}/1/{picture}"),
    ),
    *pages(ALL, ("guest", "/s/{address}/for/{guest_code}/")),
    *pages(NOBODY, ("guest", "/s/{address}/for/{shut_out_code}/")),
    *acts(ALL, ("ask-in", "/s/{domain}/ask", {"address": "x@orlmere.example"}), form=True),
    *acts(NOBODY, ("ask-in", "/s/{address}/ask", {"address": "x@orlmere.example"}), form=True),
    # Last, because files that are gone do not come back with the rows.
    *acts(OWNER, ("folder", f"{SHOW}folder", {"folder": "Towers"}), form=True),
    *acts(
        EDIT,
        ("duplicate-show", f"{SHOW}duplicate", {}),
        ("forget-slide", f"{SHOW}bin/slide/{{binned_slide}}/remove", {}),
        ("forget-entry", f"{SHOW}bin/entry/{{binned_entry}}/remove", {}),
        form=True,
    ),
    *acts(
        OWNER,
        ("remove-show", f"{SHOW}remove", {}),
        ("bring-show-back", "/bin/{binned}/bring-back", {}),
        ("remove-for-good", "/bin/{binned}/remove", {}),
        form=True,
    ),
]


def patterns(within: Any = None, before: str = "") -> Iterator[tuple[str, str]]:
    """Every address pattern of the program: its name, and how it is written."""
    for entry in get_resolver().url_patterns if within is None else within:
        written = before + str(entry.pattern)
        if isinstance(entry, URLResolver):
            yield from patterns(entry.url_patterns, written)
        else:
            assert isinstance(entry, URLPattern)
            yield entry.name or written, written


class MatrixTest(CastTest):
    def ask(self, role: str, row: Row) -> Any:
        """The answer to somebody; what it changed is taken back."""
        where = row.where.format(**self.named)
        client = self.clients[role]
        kept = client.cookies.copy()
        try:
            with transaction.atomic():
                if row.sent is None:
                    reply = client.get(where)
                elif row.form:
                    upload = SimpleUploadedFile("new.png", png("#334455"))
                    reply = client.post(
                        where, {name: upload if value is FILE else value for name, value in row.sent.items()}
                    )
                else:
                    reply = client.post(where, json.dumps(row.sent), content_type="application/json")
                transaction.set_rollback(True)
        finally:
            client.cookies = kept
        return reply

    def reached(self, reply: Any) -> bool:
        """Whether it was answered by what stands at the address, be it that something was asked wrongly."""
        if reply.status_code == 302:
            return not reply.headers["Location"].startswith("/sign-in/?next=")
        return reply.status_code not in (403, 404, 405, 500)

    def test_every_address_has_a_row(self) -> None:
        self.assertEqual(
            {name for name, _ in patterns()} - {row.name for row in ROWS}, set(), "say in ROWS who may use it"
        )

    def test_everybody_gets_in_where_they_may_and_nowhere_else(self) -> None:
        for row in ROWS:
            with self.subTest(row.name, where=row.where):
                replies = {role: self.ask(role, row) for role in ROLES}
                self.assertEqual({role for role, reply in replies.items() if self.reached(reply)}, set(row.who))
                for role, reply in replies.items():
                    if role not in row.who and not reply.streaming:
                        self.assertNotIn(b"Orlmere", reply.content, f"{role} is told what it is about")
