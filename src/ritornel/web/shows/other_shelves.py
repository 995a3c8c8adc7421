"""Media on the shelves of a person's other shows."""

from collections.abc import Collection

from django.contrib.auth.models import User
from django.db.models import Q

from ritornel.core.document.show import Asset as AssetValue
from ritornel.web.people.services import shows_open_to
from ritornel.web.shows.models import Asset, Show
from ritornel.web.shows.persistence import asset_of_row

MOST = 2000
"""So many entries are looked at."""


def entries_elsewhere(person: User, show_id: str, known: Collection[str]) -> list[tuple[str, str, list[AssetValue]]]:
    """The id, the title and the shelf of each other show that the person may edit, the last changed first; without
    content whose hash is `known`, and each content once.
    """
    mine = Q(owner=person) | Q(pk__in=shows_open_to(person, "edit"))
    shows = Show.objects.filter(mine).exclude(pk=show_id).order_by("-changed_at")
    titles = dict(shows.values_list("pk", "title"))
    found: dict[str, list[AssetValue]] = {key: [] for key in titles}
    rows = Asset.objects.filter(show__in=titles).exclude(sha256__in=known).order_by("show_id", "position")
    place = {key: at for at, key in enumerate(titles)}
    told: set[str] = set()
    for row in sorted(rows[:MOST], key=lambda row: (place[row.show_id], row.position)):
        if row.sha256 not in told:
            told.add(row.sha256)
            found[row.show_id].append(asset_of_row(bytes(row.body)))
    return [(key, titles[key], assets) for key, assets in found.items() if assets]
