import asyncio
import json
from datetime import timedelta

from django.apps import apps
from django.test import SimpleTestCase
from django.utils import timezone

from ritornel.web.stage.models import Run
from ritornel.web.stage.rooms import QUEUE, STILL_HERE, Room, Rooms
from tests.web.base import WebTest


class LecternTest(WebTest):
    def begin(self) -> Run:
        self.post("/shows/clock/run")
        return Run.objects.get()

    def test_the_lectern_tells_what_each_beat_brings(self) -> None:
        page = self.client.get("/shows/clock/lectern")
        self.assertContains(page, "Pallets")
        self.assertContains(page, "Left alone, the falling weight")

    def test_another_device_sees_the_show_but_not_the_notes(self) -> None:
        run = self.begin()
        self.client.logout()
        self.assertContains(self.client.get(f"/house/{run.house_code}/"), "The Orlmere clock")
        show = self.client.get(f"/house/{run.house_code}/performance.json").json()
        self.assertNotIn("notes", {name for slide in show["slides"] for name in slide})
        for address in show["media"].values():
            self.assertEqual(self.client.get(address).status_code, 200, address)

    def test_asking_again_gives_the_same_addresses(self) -> None:
        first, again = self.post("/shows/clock/run").json(), self.post("/shows/clock/run").json()
        self.assertEqual(first, again)
        self.assertIn("<svg", first["house"]["square"])
        self.assertEqual(self.client.get("/shows/clock/run.json").json(), first)

    def test_addresses_that_were_ended_or_are_a_day_old_lead_nowhere(self) -> None:
        run = self.begin()
        self.post("/shows/clock/run/end")
        for address in (f"/house/{run.house_code}/", f"/house/{run.house_code}/performance.json", f"/remote/{run.remote_code}/"):
            self.assertEqual(self.client.get(address).status_code, 404, address)
        self.assertIsNone(self.client.get("/shows/clock/run.json").json())
        old = self.post("/shows/clock/run").json()
        Run.objects.update(begun_at=timezone.now() - timedelta(hours=25))
        self.assertEqual(self.client.get("/" + old["house"]["address"].split("/", 3)[3]).status_code, 404)

    def test_one_code_does_not_open_what_the_other_does_and_guesses_open_nothing(self) -> None:
        run = self.begin()
        for address in (f"/house/{run.remote_code}/", f"/remote/{run.house_code}/", "/house/aaaaaaaaaaaa/", f"/house/{run.house_code}/media/no-such/100"):
            self.assertEqual(self.client.get(address).status_code, 404, address)

    def test_nobody_else_may_open_or_lead_a_run(self) -> None:
        self.begin()
        self.client.force_login(self.odo)
        for address in ("/shows/clock/lectern", "/shows/clock/house", "/shows/clock/run.json"):
            self.assertEqual(self.client.get(address).status_code, 404, address)
        for address in ("/shows/clock/run", "/shows/clock/run/end", "/shows/clock/run/say"):
            self.assertEqual(self.post(address, {"kind": "state"}).status_code, 404, address)

    async def test_what_the_lectern_says_is_kept_for_who_comes_later_and_a_remote_can_only_press(self) -> None:
        await self.async_client.aforce_login(self.ines)
        await self.async_client.post("/shows/clock/run")
        run = await Run.objects.aget()
        say = lambda value: self.async_client.post("/shows/clock/run/say", json.dumps(value), content_type="application/json")  # noqa: E731
        self.assertEqual((await say({"kind": "state", "seq": 3})).json(), {"heard": 0})
        self.assertEqual((await say({"seq": 3})).status_code, 400)
        await self.async_client.alogout()
        press = lambda act: self.async_client.post(f"/remote/{run.remote_code}/press", json.dumps({"act": act}), content_type="application/json")  # noqa: E731
        self.assertEqual((await press("next")).json(), {"pressed": "next"})
        refused = await press("remove")
        self.assertEqual((refused.status_code, refused.json()["error"]), (400, "A remote cannot do “remove”; it can do next, back, black."))
        reply = await self.async_client.get(f"/house/{run.house_code}/events")
        stream = aiter(reply.streaming_content)
        heard = [(await anext(stream)).decode() for _ in range(2)]
        self.assertEqual(heard, [STILL_HERE, 'data: {"kind": "state", "seq": 3}\n\n'])
        apps.get_app_config("stage").rooms.close(run.pk)  # type: ignore[attr-defined]


class RoomTest(SimpleTestCase):
    def test_all_who_listen_hear_all_in_order(self) -> None:
        async def work() -> list[list[str]]:
            room = Room()
            streams = [room.heard() for _ in range(3)]
            for stream in streams:
                await anext(stream)
            for number in range(5):
                room.say("state", json.dumps(number), lasting=True)
            return [[await anext(stream) for _ in range(5)] for stream in streams]

        for heard in asyncio.run(work()):
            self.assertEqual(heard, [f"data: {number}\n\n" for number in range(5)])

    def test_who_is_too_slow_is_told_the_latest_and_holds_nobody_up(self) -> None:
        async def work() -> list[str]:
            room = Room()
            stream = room.heard()
            await anext(stream)
            room.say("drawings", '"d"', lasting=True)
            for number in range(QUEUE + 40):
                room.say("state", str(number), lasting=True)
            room.say("stroke", '"s"', lasting=False)
            heard = []
            while not heard or heard[-1] != 'data: "s"\n\n':
                heard.append(await anext(stream))
            return heard

        heard = asyncio.run(work())
        self.assertLessEqual(len(heard), QUEUE)
        self.assertIn(f"data: {QUEUE + 39}\n\n", heard)
        self.assertIn('data: "d"\n\n', heard)

    def test_a_room_that_was_closed_has_forgotten(self) -> None:
        rooms = Rooms()
        rooms.room(1).say("state", "1", lasting=True)
        rooms.close(1)

        async def first() -> str:
            stream = rooms.room(1).heard()
            await anext(stream)
            rooms.room(1).say("state", "2", lasting=True)
            return await anext(stream)

        self.assertEqual(asyncio.run(first()), "data: 2\n\n")
