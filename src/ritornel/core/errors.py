"""The root of all errors that a presenter may see."""


class RitornelError(Exception):
    """A problem in words that a presenter understands: the operation, the object, the value and the limit."""


class UnknownName(RitornelError):
    """A name or id that does not exist."""


class BadValue(RitornelError):
    """A value outside what the field can hold. `field` is the path of the field, such as
    `slides[2].advance.after_ms`.
    """

    def __init__(self, message: str, field: str = "") -> None:
        super().__init__(message)
        self.field = field


class BadMedia(RitornelError):
    """A file that is not the picture, sound or clip it claims to be, or is over a limit."""


class BadArchive(RitornelError):
    """An archive that cannot be opened safely or does not hold a show."""


class DiskFull(RitornelError):
    """There is no room left to save something."""


class Cancelled(RitornelError):
    """Long work that was stopped on request."""
