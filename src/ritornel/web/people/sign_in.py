"""Signing in, with limits against guessing passwords.

Guesses are counted for a name from one network address, so that nobody locks out an office; for a name from everywhere,
except from a browser that has signed in under that name before; and, with a high limit, for a network address.
"""

from typing import Any

from django.contrib.auth.forms import AuthenticationForm
from django.contrib.auth.models import User
from django.contrib.auth.views import LoginView
from django.core import signing
from django.http import HttpRequest, HttpResponse

from ritornel.web.config.rate_limits import Brake, wait_text
from ritornel.web.people.requests import network_address

PAIR = Brake("wrong passwords of a name from an address", "6/5minute;40/day")
NAME = Brake("wrong passwords of a name", "30/hour")
ADDRESS = Brake("wrong passwords from an address", "120/5minute")
KNOWN_COOKIE = "known"
KNOWN_S = 400 * 24 * 3600
_SALT = "ritornel known browser"


def _knows(request: HttpRequest, name: str) -> bool:
    """Whether somebody has signed in under this name in this browser before."""
    try:
        known = signing.loads(request.COOKIES.get(KNOWN_COOKIE, ""), salt=_SALT, max_age=KNOWN_S)
    except signing.BadSignature:
        return False
    return isinstance(known, list) and name in known


def _remember(request: HttpRequest, response: HttpResponse, name: str) -> None:
    try:
        known = list(signing.loads(request.COOKIES.get(KNOWN_COOKIE, ""), salt=_SALT, max_age=KNOWN_S))
    except (signing.BadSignature, TypeError):
        known = []
    names = [name, *(other for other in known if other != name)][:5]
    response.set_cookie(
        KNOWN_COOKIE,
        signing.dumps(names, salt=_SALT),
        max_age=KNOWN_S,
        httponly=True,
        samesite="Lax",
        secure=request.is_secure(),
    )


class SignIn(LoginView):
    """The sign-in page."""

    template_name = "people/sign_in.html"
    redirect_authenticated_user = True

    @property
    def _name(self) -> str:
        return self.request.POST.get("username", "").strip().lower()[:254]

    def _wait_s(self) -> int:
        """The seconds that this browser has to wait before it may try this name again."""
        name, address = self._name, network_address(self.request)
        waits = [PAIR.wait_s(name, address)]
        if not _knows(self.request, name):
            waits += [NAME.wait_s(name), ADDRESS.wait_s(address)]
        return max(waits)

    def post(self, request: HttpRequest, *args: Any, **kwargs: Any) -> HttpResponse:
        """Checks the password, unless there were too many wrong ones."""
        wait = self._wait_s()
        if not wait:
            return super().post(request, *args, **kwargs)
        context = self.get_context_data(
            form=AuthenticationForm(request), username=request.POST.get("username", "")[:254], wait=wait_text(wait)
        )
        response = self.render_to_response(context, status=429)
        response.headers["Retry-After"] = str(wait)
        return response

    def form_invalid(self, form: AuthenticationForm) -> HttpResponse:
        """Counts a wrong password."""
        name, address = self._name, network_address(self.request)
        PAIR.count(name, address)
        NAME.count(name)
        ADDRESS.count(address)
        return super().form_invalid(form)

    def form_valid(self, form: AuthenticationForm) -> HttpResponse:
        """Signs somebody in; their own wrong passwords from here are forgotten."""
        response = super().form_valid(form)
        if isinstance(form.get_user(), User):
            PAIR.release(self._name, network_address(self.request))
            _remember(self.request, response, self._name)
        return response
