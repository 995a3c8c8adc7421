import asyncio
import json
from datetime import timedelta
from typing import Any
from unittest import mock

from asgiref.sync import sync_to_async
from django.contrib.auth.models import User
from django.db import DatabaseError
from django.test import Client, SimpleTestCase, TransactionTestCase, override_settings
from django.utils import timezone
from msgspec import structs

from ritornel.core.document.decoding import to_json
from ritornel.core.document.edits import ChangeShow, ChangeSlides
from ritornel.core.document.show import Slide
from ritornel.web.people.models import Invitation
from ritornel.web.releases.models import Guest, Release
from ritornel.web.shows.blank import blank_show
from ritornel.web.shows.editing import edit_show
from ritornel.web.shows.models import Show
from ritornel.web.shows.services import create_rows
from ritornel.web.stage.models import Run
from ritornel.web.streams.hub import OVER, Hub
from ritornel.web.streams.listener import WAITING, Listener
from tests.web.streaming import Streams, signed_in


def told_changes(text: str) -> Any:
    """What a stream told of changes."""
    kind, _, data = text.partition("\ndata: ")
    if kind != "event: changes":
        raise AssertionError(text[:200])
    return json.loads(data)


class StreamsTest(TransactionTestCase):
    def setUp(self) -> None:
        self.ines, self.odo = (User.objects.create(username=name) for name in ("ines", "odo"))
        self.row = Show(id="clock", owner=self.ines)
        create_rows(self.row, blank_show("clock", "The clock"))
        self.invitation = Invitation.objects.create(
            show=self.row,
            by=self.ines,
            address="odo@orlmere.example",
            role="edit",
            person=self.odo,
            accepted_at=timezone.now(),
        )

    def post(self, person: User, path: str, body: Any = None) -> Any:
        client = Client()
        client.force_login(person)
        return client.post(path, json.dumps(body or {}), content_type="application/json")

    async def aposted(self, person: User, path: str, body: Any = None) -> Any:
        return await sync_to_async(self.post)(person, path, body)

    def give_slides(self, count: int) -> tuple[str, ...]:
        """Slides s0, s1 … for the show, which has made no step."""
        self.row.delete()
        self.row = Show(id="clock", owner=self.ines)
        ids = tuple(f"s{at}" for at in range(count))
        create_rows(self.row, structs.replace(blank_show("clock", "The clock"), slides=tuple(map(Slide, ids))))
        Invitation.objects.create(
            show=self.row,
            by=self.ines,
            address="odo@orlmere.example",
            role="edit",
            person=self.odo,
            accepted_at=timezone.now(),
        )
        return ids

    def released(self, **how: Any) -> Release:
        release = Release.objects.create(show=self.row, **how)
        release.editions.create(
            number=1, document=to_json(blank_show("clock", "The clock")), title="The clock", length_ms=0, slide_count=1
        )
        return release


class ShowStreamTest(StreamsTest):
    async def test_every_change_is_told_to_all_windows(self) -> None:
        streams = Streams()
        stream = await streams.open(await signed_in(self.ines), "/shows/clock/events")
        self.assertEqual((stream.status, stream.headers["content-type"]), (200, "text/event-stream"))
        self.assertNotIn("x-ritornel-stream", stream.headers)
        self.assertIn("event: revision\ndata: 0\n\n", await stream.read())
        await sync_to_async(edit_show)("clock", self.ines, ChangeShow({"title": "Another"}))
        told = told_changes(await stream.read())
        self.assertEqual((told["since"], told["revision"], told["ask"]), (0, 1, [self.ines.pk]))
        self.assertEqual(told["settings"]["title"], "Another")
        await streams.close()

    async def test_a_change_is_told_with_the_slides_that_the_stage_shows_otherwise(self) -> None:
        await sync_to_async(self.give_slides)(8)
        streams = Streams()
        stream = await streams.open(await signed_in(self.odo), "/shows/clock/events")
        await stream.read()
        await sync_to_async(edit_show)("clock", self.ines, ChangeSlides(("s6",), {"notes": "Oil the arbor."}))
        told = told_changes(await stream.read())
        self.assertEqual(list(told["slides"]), ["s6"])
        self.assertEqual(told["slides"]["s6"]["notes"], "Oil the arbor.")
        self.assertEqual(told["stages"], ["s4", "s5", "s6", "s7"])
        await streams.close()

    async def test_what_is_told_is_what_a_window_that_asks_is_answered(self) -> None:
        await sync_to_async(self.give_slides)(2)
        streams, asks = Streams(), await signed_in(self.odo)
        stream = await streams.open(asks, "/shows/clock/events")
        await stream.read()
        await sync_to_async(edit_show)("clock", self.ines, ChangeSlides(("s1",), {"skipped": True}))
        told = told_changes(await stream.read())
        answer = (await sync_to_async(asks.get)("/shows/clock/changes.json?since=0")).json()
        for only in ("ask", "stages", "since"):
            del told[only]
        self.assertEqual({key: answer[key] for key in told}, told)
        self.assertEqual(set(answer) - set(told), {"history", "overruled", "whole"})
        await streams.close()

    async def test_whose_value_was_replaced_is_named_so_that_their_window_asks(self) -> None:
        await sync_to_async(edit_show)("clock", self.odo, ChangeShow({"title": "The bells"}))
        streams = Streams()
        stream = await streams.open(await signed_in(self.ines), "/shows/clock/events")
        await stream.read()
        await sync_to_async(edit_show)("clock", self.ines, ChangeShow({"title": "The hands"}), revision=0)
        self.assertEqual(told_changes(await stream.read())["ask"], sorted([self.ines.pk, self.odo.pk]))
        await streams.close()

    async def test_a_change_too_long_to_tell_is_asked_for(self) -> None:
        ids = await sync_to_async(self.give_slides)(60)
        streams = Streams()
        stream = await streams.open(await signed_in(self.odo), "/shows/clock/events")
        await stream.read()
        await sync_to_async(edit_show)("clock", self.ines, ChangeSlides(ids, {"notes": "Oil. " * 400}))
        self.assertEqual(await stream.read(), "event: revision\ndata: 1\n\n")
        await streams.close()

    async def test_somebody_elses_show_tells_nothing(self) -> None:
        streams = Streams()
        stranger = await User.objects.acreate(username="tamsin")
        self.assertEqual((await streams.open(await signed_in(stranger), "/shows/clock/events")).status, 404)
        self.assertEqual((await streams.open(Client(), "/shows/clock/events")).status, 302)
        self.assertEqual(
            (await streams.open(await signed_in(self.ines), "/shows/clock/events", method="HEAD")).status, 405
        )
        await streams.close()

    async def test_who_is_withdrawn_hears_that_it_is_over_within_two_seconds(self) -> None:
        streams = Streams()
        stream = await streams.open(await signed_in(self.odo), "/shows/clock/events")
        await stream.read()
        await self.aposted(self.ines, f"/shows/clock/people/{self.invitation.pk}/withdraw")
        self.assertEqual(await stream.read(within_s=2), OVER)
        self.assertEqual(await stream.read(), "", "the stream has ended")
        await streams.close()

    async def test_people_see_each_other_as_long_as_their_streams_are_open(self) -> None:
        streams = Streams()
        first = await streams.open(await signed_in(self.ines), "/shows/clock/events?window=window-of-ines")
        await first.read()
        second = await streams.open(await signed_in(self.odo), "/shows/clock/events?window=window-of-odo")
        self.assertIn('"name":"odo"', await first.read())
        await self.aposted(self.odo, "/shows/clock/here", {"window": "window-of-odo", "slide_id": "s", "picked": ["a"]})
        self.assertIn('"slide_id":"s","picked":["a"]', await first.read())
        await self.aposted(self.ines, "/shows/clock/here", {"window": "window-of-odo", "slide_id": "t"})
        await second.close()
        gone = await first.read()
        self.assertNotIn("odo", gone, "and nobody says where somebody else's window is")
        await streams.close()


class RunStreamTest(StreamsTest):
    def begun(self) -> tuple[Run, Any]:
        addresses = self.post(self.odo, "/shows/clock/run").json()
        return Run.objects.get(), addresses

    async def test_what_is_said_is_heard_and_known_to_who_comes_later(self) -> None:
        streams = Streams()
        run, addresses = await sync_to_async(self.begun)()
        early = await streams.open(Client(), f"/house/{run.house_code}/events")
        self.assertEqual(
            (await self.aposted(self.odo, addresses["say"], {"kind": "state", "seq": 3})).json(), {"heard": 1}
        )
        self.assertEqual(await early.read(), 'data: {"kind": "state", "seq": 3}\n\n')
        late = await streams.open(Client(), f"/remote/{run.remote_code}/events")
        self.assertEqual(await late.read(), 'data: {"kind": "state", "seq": 3}\n\n')
        lectern = await streams.open(await signed_in(self.odo), addresses["events"])
        await lectern.read()
        self.assertEqual(
            (await self.aposted(self.ines, f"/remote/{run.remote_code}/press", {"act": "next"})).json(),
            {"pressed": "next"},
        )
        self.assertEqual(await lectern.read(), 'data: {"kind": "press", "act": "next"}\n\n')
        await streams.close()

    async def test_everything_of_a_run_stops_when_who_started_it_is_withdrawn(self) -> None:
        streams = Streams()
        run, _ = await sync_to_async(self.begun)()
        open_ones = [
            await streams.open(Client(), f"/house/{run.house_code}/events"),
            await streams.open(Client(), f"/remote/{run.remote_code}/events"),
        ]
        await self.aposted(self.ines, f"/shows/clock/people/{self.invitation.pk}/withdraw")
        for stream in open_ones:
            self.assertEqual(await stream.read(within_s=2), OVER)
            self.assertEqual(await stream.read(), "")
        await streams.close()

    async def test_a_run_that_is_ended_or_a_day_old_is_over_for_all(self) -> None:
        streams = Streams()
        run, _ = await sync_to_async(self.begun)()
        stream = await streams.open(Client(), f"/house/{run.house_code}/events")
        await Run.objects.aupdate(begun_at=timezone.now() - timedelta(hours=25))
        self.assertEqual(await stream.read(within_s=2), OVER)
        await streams.close()


class ReleaseStreamTest(StreamsTest):
    async def test_the_newest_edition_is_told(self) -> None:
        streams = Streams()
        release = await sync_to_async(self.released)()
        stream = await streams.open(Client(), f"/s/{release.address}/news")
        self.assertEqual(await stream.read(), "event: edition\ndata: 1\n\n")
        await release.editions.acreate(number=2, document=b"{}", title="The clock", length_ms=0, slide_count=1)
        self.assertEqual(await stream.read(within_s=2), "event: edition\ndata: 2\n\n")
        await Release.objects.aupdate(withdrawn=True)
        self.assertEqual(await stream.read(within_s=2), OVER)
        await streams.close()

    async def test_a_guest_who_is_shut_out_hears_that_it_is_over(self) -> None:
        streams = Streams()
        release = await sync_to_async(self.released)(audience="invited")
        guest = await Guest.objects.acreate(release=release, address="tamsin@orlmere.example")
        browser = Client()
        browser.cookies[f"guest-{release.address}"] = guest.code
        stream, other = (
            await streams.open(browser, f"/s/{release.address}/news"),
            await streams.open(await signed_in(self.ines), f"/s/{release.address}/news"),
        )
        self.assertEqual(await stream.read(), "event: edition\ndata: 1\n\n")
        self.assertEqual(await other.read(), "event: edition\ndata: 1\n\n")
        self.assertEqual((await streams.open(Client(), f"/s/{release.address}/news")).status, 404)
        await self.aposted(self.ines, f"/shows/clock/guests/{guest.pk}")
        self.assertEqual(await stream.read(within_s=2), OVER)
        with self.assertRaises(TimeoutError):
            await other.read(within_s=0.8)
        await streams.close()

    async def test_anonymous_viewers_hear_that_it_is_over_when_a_release_becomes_private(self) -> None:
        streams = Streams()
        release = await sync_to_async(self.released)()
        stream = await streams.open(Client(), f"/s/{release.address}/news")
        await stream.read()
        await self.aposted(self.ines, "/shows/clock/release/settings", {"audience": "invited"})
        self.assertEqual(await stream.read(within_s=2), OVER)
        await streams.close()


class CountedTest(StreamsTest):
    async def test_more_streams_than_somebody_may_have_are_refused_and_told_when_to_come_back(self) -> None:
        streams = Streams()
        release = await sync_to_async(self.released)()
        news = f"/s/{release.address}/news"
        for kind, limit in (("address", 2), ("release", 2), ("person", 2), ("server", 2)):
            with override_settings(
                MOST_STREAMS={"person": 9, "address": 9, "release": 9, "run": 9, "server": 9, kind: limit}
            ):
                path, browser = (
                    ("/shows/clock/events", await signed_in(self.ines)) if kind == "person" else (news, Client())
                )
                opened = [await streams.open(browser, path) for _ in range(limit)]
                refused = await streams.open(browser, path)
                self.assertEqual((refused.status, refused.headers["retry-after"]), (503, "20"), kind)
                self.assertIn("Too many windows", await refused.read())
                await opened[0].close()
                again = await streams.open(browser, path)
                self.assertEqual(again.status, 200, "a place that was left is free")
                for stream in (opened[1], again):
                    await stream.close()
        elsewhere = await streams.open(Client(), news, address="192.0.2.7")
        self.assertEqual(elsewhere.status, 200)
        await streams.close()


class HubTest(SimpleTestCase):
    def test_nothing_is_looked_up_while_nothing_was_written(self) -> None:
        looked: list[int] = []

        class Told:
            name = "told"

            def look(self, keys: Any) -> Any:
                looked.append(len(keys))
                return dict.fromkeys(keys, 1)

            def messages(self, before: Any, now: Any) -> Any:
                return iter([f"data: {now}\n\n"])

            joined = left = lambda self, *_: None

        async def work() -> None:
            hub = Hub()
            hub.register(Told())  # type: ignore[arg-type]
            with (
                mock.patch("ritornel.web.streams.hub.written_since", return_value=(False, 1)) as asked,
                mock.patch("ritornel.web.streams.hub.LOOK_S", 0.01),
            ):
                listeners = [hub.join("told", (number % 3,), {}) for number in range(30)]
                for listener in listeners:
                    self.assertEqual(await asyncio.wait_for(listener.take(), 5), "data: 1\n\n")
                async with asyncio.timeout(10):
                    while asked.call_count < 6:
                        await asyncio.sleep(0)
                for number, listener in enumerate(listeners):
                    hub.leave("told", (number % 3,), listener, {})
                self.assertEqual(looked, [3])

        asyncio.run(work())

    def test_a_database_that_is_busy_for_once_ends_no_stream(self) -> None:
        answers: list[Any] = [DatabaseError("busy"), (True, 1)]

        class Told:
            name = "told"
            joined = left = lambda self, *_: None

            def look(self, keys: Any) -> Any:
                return dict.fromkeys(keys, 1)

            def messages(self, before: Any, now: Any) -> Any:
                return iter(["data: there\n\n"])

        async def work() -> str | None:
            hub = Hub()
            hub.register(Told())  # type: ignore[arg-type]
            with (
                mock.patch("ritornel.web.streams.hub.written_since", side_effect=answers),
                self.assertLogs("ritornel.web.streams.hub"),
            ):
                listener = hub.join("told", ("a",), {})
                text = await asyncio.wait_for(listener.take(), 5)
                hub.leave("told", ("a",), listener, {})
            return text

        self.assertEqual(asyncio.run(work()), "data: there\n\n")

    def test_who_is_too_slow_is_told_what_has_to_be_known_and_holds_nobody_up(self) -> None:
        async def work() -> str:
            known = ["data: drawings\n\n"]
            listener = Listener(lambda: known)
            for number in range(WAITING + 40):
                known[1:] = [f"data: {number}\n\n"]
                listener.push(known[1])
            listener.push("data: stroke\n\n")
            # What other threads push comes with the loop's next turn.
            await asyncio.sleep(0)
            return await listener.take() or ""

        heard = asyncio.run(work()).split("\n\n")
        self.assertLessEqual(len(heard), WAITING + 2)
        self.assertIn("data: drawings", heard)
        self.assertIn(f"data: {WAITING + 39}", heard)
        self.assertEqual(heard[-2], "data: stroke")
