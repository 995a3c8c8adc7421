"""What carries a recording to the server, with a server that the test plays."""

from typing import Any

from tests.browser.base import BrowserTest

COURIER = """async () => {
  const { Courier } = await import("/static/ritornel/record/uploader.js");
  const calls = [];
  window.fetch = (_, { body }) => new Promise((done) => {
    const camera = body.get("camera");
    const about = JSON.parse(body.get("about"));
    calls.push({
      about,
      camera: camera?.size ?? 0,
      answer: (more) => done(new Response(JSON.stringify({ bytes: about.at, kept_ms: 1, ...more }))),
    });
  });
  const courier = new Courier("/shows/none", "window");
  courier.begin({ id: "take", bytes: 0, take: { events: [] } });
  clearInterval(courier.timer);
  const arrived = (slide_id, at_ms) => ({ event: "arrived", slide_id, at_ms });
  const next = () => new Promise((done) => { setTimeout(done, 0); });
  const called = async (count) => { while (calls.length < count) await next(); return calls[count - 1]; };
  WORK
}"""


class CourierTest(BrowserTest):
    def run_courier(self, work: str) -> Any:
        return self.page.evaluate(COURIER.replace("WORK", work))

    def test_an_event_that_is_taken_back_while_it_is_on_its_way_is_sent_as_what_took_its_place(self) -> None:
        sent = self.run_courier("""
          courier.say(arrived("a", 0));
          courier.send();
          const first = await called(1);
          courier.retract();
          courier.say(arrived("b", 0));
          first.answer({ events: 1 });
          while (courier.sending) await next();
          courier.send();
          const { about } = await called(2);
          return [about.first, about.events];
        """)
        self.assertEqual(sent, [0, [{"event": "arrived", "slide_id": "b", "at_ms": 0}]])

    def test_no_event_is_before_the_one_that_was_said_before_it(self) -> None:
        """The server refuses a take whose events run backwards, and nothing more of it was kept then."""
        events = self.run_courier("""
          courier.say(arrived("a", 2001));
          courier.say(arrived("b", 2000));
          return courier.events;
        """)
        self.assertEqual([event["at_ms"] for event in events], [2001, 2001])

    def test_a_long_piece_of_the_camera_goes_in_parts_that_the_server_takes(self) -> None:
        """Where a machine slept, a camera may hand over more at once than the server takes at once."""
        parts = self.run_courier("""
          courier.see({ piece: 0, from_ms: 0, blob: new Blob([new Uint8Array(7_000_000)]) });
          const parts = [];
          while (courier.seen.length) {
            courier.send();
            const call = await called(parts.length + 1);
            parts.push([call.about.camera_at, call.camera]);
            call.answer({ events: 0 });
            while (courier.sending) await next();
          }
          return parts;
        """)
        self.assertEqual(parts, [[0, 3_000_000], [3_000_000, 3_000_000], [6_000_000, 1_000_000]])
