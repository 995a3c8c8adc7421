"""The stream for viewers of a release: the number of its newest edition, and the end of their access."""

from collections.abc import Collection, Iterator

from django.db.models import Max

from ritornel.web.releases.models import Guest, Release
from ritornel.web.streams.services import Feed

Key = tuple[int, int, bool]
"""A release, the guest (0: none), and whether it is the owner who watches."""


class ReleaseFeed(Feed):
    """One stream for each window that shows a release."""

    name = "release"

    def look(self, keys: Collection[Key]) -> dict[Key, int]:
        """The newest edition of each release that its reader may still see."""
        wanted = Release.objects.filter(
            pk__in={release_id for release_id, _, _ in keys}, withdrawn=False, show__removed_at=None
        )
        found = {
            pk: (audience, last)
            for pk, audience, last in wanted.annotate(last=Max("editions__number")).values_list(
                "pk", "audience", "last"
            )
        }
        guests = {guest_id for _, guest_id, _ in keys if guest_id}
        let_in = (
            set(Guest.objects.filter(pk__in=guests, withdrawn_at__isnull=True).values_list("pk", flat=True))
            if guests
            else set()
        )
        state = {}
        for key in keys:
            release_id, guest_id, owns = key
            audience, last = found.get(release_id, ("", None))
            if last is not None and (audience == "anyone" or owns or guest_id in let_in):
                state[key] = last
        return state

    def messages(self, before: int | None, now: int) -> Iterator[str]:
        """The number of the newest edition."""
        yield f"event: edition\ndata: {now}\n\n"
