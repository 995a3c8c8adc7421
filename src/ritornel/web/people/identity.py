"""Identity: sign-in names, and proven e-mail addresses."""

import re
import secrets
from typing import Any

from django.contrib.auth.backends import ModelBackend
from django.contrib.auth.models import User
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.db import transaction
from django.http import HttpRequest

from ritornel.core.errors import BadValue
from ritornel.core.wording import one_line
from ritornel.web.people.models import ProvenAddress

BACKEND = "ritornel.web.people.identity.NameOrAddressBackend"
_NAME = re.compile(r"[^\W_][\w.\-]{1,38}[^\W_]", re.UNICODE)


def proven_person(address: str) -> User | None:
    """The person who has proven the address."""
    found = ProvenAddress.objects.filter(address=address.strip().lower()).select_related("person").first()
    return found.person if found is not None else None


def proves(person: User, address: str) -> bool:
    """Whether the person has proven the address."""
    return ProvenAddress.objects.filter(address=address.strip().lower(), person=person).exists()


def prove(person: User, address: str) -> None:
    """Notes that the person can read mail at the address.

    An earlier owner of the proof loses it; accounts stay as they are.
    """
    ProvenAddress.objects.update_or_create(address=address.strip().lower(), defaults={"person": person})


class NameOrAddressBackend(ModelBackend):
    """Signs people in by a proven address or by a sign-in name. Each account opens only with its own password."""

    def authenticate(
        self, request: HttpRequest | None, username: str | None = None, password: str | None = None, **_: Any
    ) -> User | None:
        """The account for these, or None. An unknown name takes as long as a wrong password."""
        if not username or password is None:
            return None
        words = username.strip()
        candidates = [proven_person(words), User.objects.filter(username__iexact=words).first()]
        known = [person for person in candidates if person is not None]
        if not known:
            User().set_password(password)
        for person in known:
            if person.check_password(password) and self.user_can_authenticate(person):
                return person
        return None


def check_password(password: str, name: str, sign_in_name: str) -> None:
    """Raises BadValue, with sentences, for a password that is too short, common, all digits or like the name."""
    try:
        validate_password(
            password,
            User(username=sign_in_name, first_name=name[:150], email=sign_in_name if "@" in sign_in_name else ""),
        )
    except ValidationError as error:
        raise BadValue(" ".join(error.messages), "password") from error


def _check_sign_in_name(sign_in_name: str) -> None:
    if not _NAME.fullmatch(sign_in_name):
        raise BadValue(
            "A sign-in name has 3 to 40 letters and digits; points and hyphens may stand between them.", "sign_in_name"
        )
    if User.objects.filter(username__iexact=sign_in_name).exists():
        raise BadValue(f"“{sign_in_name}” is taken. Choose another sign-in name.", "sign_in_name")


def create_account(name: str, password: str, sign_in_name: str = "", address: str = "") -> User:
    """A new account: with a proven `address`, or only with a sign-in name. Raises BadValue naming the field."""
    name = one_line(name)[:120]
    if not name:
        raise BadValue("Say what you are called, so that the others know who you are.", "name")
    if address:
        taken = User.objects.filter(username__iexact=address).exists()
        sign_in_name = f"person-{secrets.token_hex(6)}" if taken else address
    else:
        _check_sign_in_name(sign_in_name)
    check_password(password, name, address or sign_in_name)
    with transaction.atomic():
        person = User.objects.create_user(sign_in_name, address, password, first_name=name)
        if address:
            prove(person, address)
    return person
