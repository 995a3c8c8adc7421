"""A person's own account: name, password, and proven e-mail addresses."""

from django.contrib import messages
from django.contrib.auth import update_session_auth_hash
from django.contrib.auth.decorators import login_required
from django.core import signing
from django.core.exceptions import ValidationError
from django.core.validators import validate_email
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.views.decorators.http import require_GET, require_http_methods, require_POST

from ritornel.core.errors import BadValue, RitornelError
from ritornel.core.wording import one_line
from ritornel.web.config.rate_limits import Brake
from ritornel.web.people.identity import check_password, prove
from ritornel.web.people.mail import mail_goes_out, send_mail
from ritornel.web.people.requests import called, network_address, person_of

PROVING = Brake("letters that prove an address", "5/hour")
PASSWORDS = Brake("wrong passwords on the page of an account", "10/hour")
_SALT = "ritornel proof of an address"
PROOF_S = 24 * 3600


@login_required
@require_GET
def account(request: HttpRequest) -> HttpResponse:
    """The page."""
    return _page(request)


def _page(request: HttpRequest, wrong: str = "", field: str = "", status: int = 200) -> HttpResponse:
    person = person_of(request)
    addresses = person.proven_addresses.order_by("address")
    context = {"person": person, "addresses": addresses, "mail": mail_goes_out(), "wrong": wrong, "field": field}
    return render(request, "people/account.html", context, status=status)


@login_required
@require_POST
def change_name(request: HttpRequest) -> HttpResponse:
    """Changes the name that others see."""
    person, name = person_of(request), one_line(request.POST.get("name", ""))[:120]
    if not name:
        return _page(request, "Say what you are called, so that the others know who you are.", "name", 400)
    person.first_name, person.last_name = name, ""
    person.save(update_fields=["first_name", "last_name"])
    messages.info(request, f"You are called {name} now.")
    return redirect("account")


@login_required
@require_POST
def change_password(request: HttpRequest) -> HttpResponse:
    """Changes the password; the old one is required."""
    person, old, new = person_of(request), request.POST.get("old", "")[:200], request.POST.get("new", "")[:200]
    try:
        PASSWORDS.apply(person.pk, words="Too many passwords were tried here.")
        if not person.check_password(old):
            raise BadValue("This is not your password. Nothing was changed.", "old")
        check_password(new, person.first_name, person.username)
    except RitornelError as error:
        return _page(request, str(error), error.field if isinstance(error, BadValue) else "old", 400)
    PASSWORDS.release(person.pk)
    person.set_password(new)
    person.save(update_fields=["password"])
    update_session_auth_hash(request, person)
    messages.info(request, "Your password was changed.")
    return redirect("account")


@login_required
@require_POST
def ask_for_proof(request: HttpRequest) -> HttpResponse:
    """Sends mail to an address; its link proves that the address is the person's."""
    person, address = person_of(request), request.POST.get("address", "").strip().lower()[:254]
    try:
        validate_email(address)
        if not mail_goes_out():
            raise RitornelError("No mail goes out from here, so that no address can be proven.")
        PROVING.apply(person.pk, words="Mail was asked for several times already.")
        PROVING.apply(network_address(request), words="Mail was asked for several times already.")
        code = signing.dumps({"person": person.pk, "address": address}, salt=_SALT)
        link = request.build_absolute_uri(reverse("prove-address", args=[code]))
        text = (
            f"Hello {called(person)},\n\nopen this link while you are signed in, and the address is "
            f"known to be yours:\n{link}\n\nIt works for a day."
        )
        send_mail(f"account {person.pk}", person.pk, address, "Is this your address?", text)
    except ValidationError:
        return _page(request, f"“{one_line(address)[:100]}” is no e-mail address. Nothing was sent.", "address", 400)
    except RitornelError as error:
        return _page(request, str(error), "address", 400)
    messages.info(request, f"Mail with a link went to {address}.")
    return redirect("account")


@login_required
@require_http_methods(["GET", "POST"])
def prove_address(request: HttpRequest, code: str) -> HttpResponse:
    """The page of that link. It asks for a press, since mail programs open links by themselves."""
    person = person_of(request)
    try:
        proof = signing.loads(code, salt=_SALT, max_age=PROOF_S)
    except signing.BadSignature:
        return render(
            request,
            "people/prove_address.html",
            {"refusal": "This link is not whole, or older than a day. Ask for another one."},
            status=410,
        )
    if proof["person"] != person.pk:
        words = f"This link is for another account; you are signed in as {called(person)}. Sign out and open it again."
        return render(request, "people/prove_address.html", {"refusal": words}, status=403)
    if request.method == "GET":
        return render(request, "people/prove_address.html", {"address": proof["address"]})
    prove(person, proof["address"])
    messages.info(request, f"{proof['address']} is known to be yours.")
    return redirect("account")


@login_required
@require_POST
def forget_address(request: HttpRequest, number: int) -> HttpResponse:
    """Removes an address from the account."""
    get_object_or_404(person_of(request).proven_addresses, pk=number).delete()
    return redirect("account")
