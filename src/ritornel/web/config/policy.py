"""The Content-Security-Policy of every answer: only Ritornel's own scripts, styles and media, and nothing inline."""

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse
from django.http.response import HttpResponseBase

PAGE = "; ".join(
    [
        "default-src 'none'",
        "script-src 'self'",
        "style-src 'self'",
        "img-src 'self' blob: data:",
        "media-src 'self' blob:",
        "font-src 'self'",
        "connect-src 'self'",
        "frame-src 'self'",
        "frame-ancestors 'self'",
        "form-action 'self'",
        "base-uri 'none'",
        "object-src 'none'",
    ]
)
FILE = "default-src 'none'; sandbox"
"""For uploaded files: even opened on its own, a file can run nothing."""


class ContentPolicyMiddleware:
    """Sets the policy on answers without a stricter one."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        response = self.get_response(request)
        response.headers.setdefault("Content-Security-Policy", PAGE)
        response.headers.setdefault("Permissions-Policy", "camera=(self), microphone=(self), geolocation=()")
        return response


def as_file(response: HttpResponse) -> HttpResponse:
    """The answer with the policy for files."""
    response.headers["Content-Security-Policy"] = FILE
    response.headers["X-Content-Type-Options"] = "nosniff"
    return response
