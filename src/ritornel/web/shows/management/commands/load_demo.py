"""Updates the database and loads the demo: a person to sign in as, the Orlmere clock, the same with a voice, and a
lesson with a clip. Existing data stays as it is.
"""

from typing import Any

from django.contrib.auth.models import User
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandParser
from django.db import transaction

from ritornel.demo.narrated import told, told_media
from ritornel.demo.orlmere import orlmere
from ritornel.demo.pendulum import clip_medium, pendulum
from ritornel.starters import STARTERS
from ritornel.web.library.services import WIDTHS_PX, slide_picture
from ritornel.web.shows.services import Show, create_rows, keep_media, value_of
from ritornel.web.shows.starting import starter_picture

NAME, PASSWORD = "winder", "seventy-eight turns"


class Command(BaseCommand):
    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument(
            "--password",
            help="The demo's sign-in gets this password, instead of the one that everybody can read in the README.",
        )

    def handle(self, *args: Any, **options: Any) -> None:
        call_command("migrate", verbosity=0)
        with transaction.atomic():
            self._load()
            if options["password"]:
                person = User.objects.get(username=NAME)
                person.set_password(options["password"])
                person.save(update_fields=["password"])

        self._draw()

    def _draw(self) -> None:
        """Draws the pictures that people see first, in advance."""
        for show_id in ("orlmere", "told", "pendulum"):
            row = Show.everywhere.filter(pk=show_id).first()
            show = value_of(row) if row is not None else None
            if show is not None and show.shown:
                slide_picture(show, show.shown[0], WIDTHS_PX["large"], 1)
        for name in STARTERS:
            starter_picture(name, 0)

    def _load(self) -> None:
        person, made = User.objects.get_or_create(username=NAME)
        if made:
            person.set_password(PASSWORD)
            person.save()
        if not Show.everywhere.filter(pk="orlmere").exists() and made:
            for asset, data in (*told_media().values(), clip_medium()):
                keep_media(asset.sha256, data)
            create_rows(Show(id="pendulum", owner=person), pendulum())
            create_rows(Show(id="told", owner=person), told())
            create_rows(Show(id="orlmere", owner=person), orlmere())
