"""The person and the network address of a request."""

from django.contrib.auth.models import User
from django.http import Http404, HttpRequest


def person_of(request: HttpRequest) -> User:
    """The person who is signed in. Raises Http404 for nobody; views that need a person also redirect to the sign-in
    page.
    """
    if not isinstance(request.user, User):
        raise Http404("Sign in first.")
    return request.user


def network_address(request: HttpRequest) -> str:
    """The network address of a request."""
    return str(request.META.get("REMOTE_ADDR") or "unknown")


def called(person: User | None) -> str:
    """The name of a person within sentences."""
    return (person.get_full_name() or person.get_username()) if person is not None else "Somebody"
