"""Mail. By default it is kept in a folder, and its sender can read it on a page; with SMTP configured it is sent."""

import email
import email.policy
from collections.abc import Sequence
from email.utils import parsedate_to_datetime
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

from ritornel.core.errors import RitornelError
from ritornel.core.wording import one_line
from ritornel.web.config.rate_limits import Brake, TooOften, wait_text
from ritornel.web.people.requests import person_of

SENDER_HEADER = "X-Ritornel-Sender"
FILES = "ritornel.web.people.mail.FileMailBackend"
SHOWN = 50
LETTERS = Brake("mail of a show", settings.MAIL_RATE)
"""How much mail may go out for one show."""


def mail_folder() -> Path:
    """The folder of kept mail."""
    return Path(settings.VAR) / "mail"


class FileMailBackend(BaseEmailBackend):
    """Keeps mail in a folder and sends nothing."""

    def send_messages(self, email_messages: Sequence[EmailMessage]) -> int:
        """Writes each message to a file of its own; returns their number."""
        folder = mail_folder()
        folder.mkdir(parents=True, exist_ok=True)
        for number, message in enumerate(email_messages):
            name = f"{timezone.now():%Y%m%d-%H%M%S-%f}-{number}.eml"
            (folder / name).write_bytes(message.message().as_bytes())
        return len(email_messages)


def mail_goes_out() -> bool:
    """Whether mail is sent.

    Where it is kept instead, its sender can read it, so its links prove nothing.
    """
    return bool(settings.EMAIL_BACKEND != FILES)


def check_mail_allowed(show_id: str, letters: int) -> None:
    """Raises TooOften where so many more messages are too many for a show within an hour."""
    wait = LETTERS.wait_s(show_id, times=letters)
    if wait:
        raise TooOften(
            "So much mail cannot go out for one show within an hour. Nothing was sent. Try again in "
            f"{wait_text(wait)}.",
            wait,
        )


def send_mail(show_id: str, sender_id: int, to: str, subject: str, text: str) -> None:
    """Sends mail for a show.

    Where mail is kept, its sender can read it on the mail page. Raises TooOften, and RitornelError where the mail
    server does not accept it.
    """
    check_mail_allowed(show_id, 1)
    LETTERS.count(show_id)
    letter = EmailMessage(
        one_line(subject)[:200], text, settings.DEFAULT_FROM_EMAIL, [to], headers={SENDER_HEADER: str(sender_id)}
    )
    try:
        letter.send()
    except OSError as error:
        raise RitornelError(
            f"The mail to {to} could not be sent: the mail server did not take it. Try again in a while."
        ) from error


def _read_message(path: Path) -> dict[str, Any]:
    message = email.message_from_bytes(path.read_bytes(), policy=email.policy.default)
    text = message.get_content().strip()
    return {
        "sender": message[SENDER_HEADER],
        "to": message["To"],
        "subject": message["Subject"],
        "at": parsedate_to_datetime(message["Date"]),
        "text": text,
    }


@login_required
@require_GET
def mail_page(request: HttpRequest) -> HttpResponse:
    """The mail of the person, newest first, where it is kept."""
    own = str(person_of(request).pk)
    kept = not mail_goes_out()
    paths = sorted(mail_folder().glob("*.eml"), reverse=True) if kept and mail_folder().is_dir() else []
    sent = [message for message in map(_read_message, paths) if message["sender"] == own][:SHOWN]
    return render(request, "people/mail.html", {"messages_sent": sent, "kept": kept})
