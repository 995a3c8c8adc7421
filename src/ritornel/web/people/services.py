"""What other apps may ask of people."""

from django.contrib.auth.models import User
from django.http import Http404, HttpRequest

from ritornel.web.people.models import Comment, Invitation
from ritornel.web.people.roles import Access

__all__ = ["Access", "access_of", "assigned_to", "called", "open_comments", "person_of", "shared_with", "shows_open_to"]


def person_of(request: HttpRequest) -> User:
    """Who is signed in. Raises Http404 for nobody; views that need a person also send nobody to the sign-in page."""
    if not isinstance(request.user, User):
        raise Http404("Sign in first.")
    return request.user


def called(person: User | None) -> str:
    """What a person is called in sentences."""
    return (person.get_full_name() or person.get_username()) if person is not None else "Somebody"


def access_of(show_id: str, owner_id: int, person: User) -> Access | None:
    """What the person is to the show; None for nothing. An owner costs no query."""
    if owner_id == person.pk:
        return Access("own")
    found = Invitation.objects.filter(show_id=show_id, person=person, accepted_at__isnull=False, withdrawn_at__isnull=True).first()
    return Access(found.role, found.section) if found is not None else None  # type: ignore[arg-type]


def shows_open_to(person: User) -> dict[str, Access]:
    """The shows of others that the person may open, by id."""
    found = Invitation.objects.filter(person=person, accepted_at__isnull=False, withdrawn_at__isnull=True)
    return {entry.show_id: Access(entry.role, entry.section) for entry in found}  # type: ignore[arg-type]


def assigned_to(show_id: str) -> dict[str, str]:
    """Who is to record which section, by the slide that named it when they were invited."""
    found = Invitation.objects.filter(show_id=show_id, role="record", withdrawn_at__isnull=True)
    return {entry.section: entry.called for entry in found if entry.state != "expired"}


def shared_with(show_id: str) -> bool:
    """Whether anybody else may open the show."""
    return Invitation.objects.filter(show_id=show_id, accepted_at__isnull=False, withdrawn_at__isnull=True).exists()


def open_comments(show_id: str) -> int:
    """How many comments are not closed."""
    return Comment.objects.filter(show_id=show_id, answers=None, closed_at__isnull=True).count()
