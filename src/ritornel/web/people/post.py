"""The post. By default letters are kept in a folder and can be read on a page by who sent them; with SMTP set they go out to the world."""

import email
import email.policy
from collections.abc import Sequence
from pathlib import Path
from typing import Any

from django.conf import settings
from django.contrib.auth.decorators import login_required
from django.core.mail import EmailMessage
from django.core.mail.backends.base import BaseEmailBackend
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils import timezone
from django.views.decorators.http import require_GET

from ritornel.web.people.services import person_of

SENDER_HEADER = "X-Ritornel-Sender"
KEPT = "ritornel.web.people.post.KeptPost"
SHOWN = 50


def post_folder() -> Path:
    """Where letters are kept."""
    return Path(settings.VAR) / "post"


class KeptPost(BaseEmailBackend):
    """Keeps letters in a folder instead of sending them."""

    def send_messages(self, email_messages: Sequence[EmailMessage]) -> int:
        """Writes each letter to a file of its own; how many they were."""
        folder = post_folder()
        folder.mkdir(parents=True, exist_ok=True)
        for number, message in enumerate(email_messages):
            name = f"{timezone.now():%Y%m%d-%H%M%S-%f}-{number}.eml"
            (folder / name).write_bytes(message.message().as_bytes())
        return len(email_messages)


def send(sender_id: int, to: str, subject: str, text: str) -> None:
    """Sends a letter. Whoever sent it can read it on the page of the post, where letters are kept."""
    EmailMessage(subject, text, settings.DEFAULT_FROM_EMAIL, [to], headers={SENDER_HEADER: str(sender_id)}).send()


def _told(path: Path) -> dict[str, Any]:
    letter = email.message_from_bytes(path.read_bytes(), policy=email.policy.default)
    return {"sender": letter[SENDER_HEADER], "to": letter["To"], "subject": letter["Subject"], "date": letter["Date"], "text": letter.get_content().strip()}


@login_required
@require_GET
def post(request: HttpRequest) -> HttpResponse:
    """The letters that the person has sent, newest first, where they are kept."""
    own = str(person_of(request).pk)
    kept = settings.EMAIL_BACKEND == KEPT
    paths = sorted(post_folder().glob("*.eml"), reverse=True) if kept and post_folder().is_dir() else []
    letters = [letter for letter in map(_told, paths) if letter["sender"] == own][:SHOWN]
    return render(request, "people/post.html", {"letters": letters, "kept": kept})
