import asyncio

from django.contrib.auth.models import User
from django.test import AsyncClient, TransactionTestCase

from ritornel.core.document.edits import ChangeShow
from ritornel.web.shows.blank import blank_show
from ritornel.web.shows.editing import edit_show
from ritornel.web.shows.services import Show, create_rows


class EventsTest(TransactionTestCase):
    def setUp(self) -> None:
        self.ines = User.objects.create(username="ines")
        create_rows(Show(id="clock", owner=self.ines), blank_show("clock", "The clock"))

    async def test_every_change_is_told_to_all_windows(self) -> None:
        client = AsyncClient()
        await client.aforce_login(self.ines)
        reply = await client.get("/shows/clock/events")
        self.assertEqual(reply.headers["Content-Type"], "text/event-stream")
        stream = aiter(reply.streaming_content)
        self.assertEqual(await anext(stream), b"event: revision\ndata: 0\n\n")
        await asyncio.to_thread(edit_show, "clock", self.ines, ChangeShow({"title": "Another"}))
        self.assertEqual(await asyncio.wait_for(anext(stream), 5), b"event: revision\ndata: 1\n\n")

    async def test_somebody_elses_show_tells_nothing(self) -> None:
        client = AsyncClient()
        await client.aforce_login(await User.objects.acreate(username="odo"))
        self.assertEqual((await client.get("/shows/clock/events")).status_code, 404)
