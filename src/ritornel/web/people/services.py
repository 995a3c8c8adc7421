"""What other apps may ask of people."""

from django.contrib.auth.models import User
from django.http import Http404, HttpRequest


def person_of(request: HttpRequest) -> User:
    """Who is signed in. Raises Http404 for nobody; views that need a person also send nobody to the sign-in page."""
    if not isinstance(request.user, User):
        raise Http404("Sign in first.")
    return request.user
