"""A telephone number: kept in E.164, with what was typed."""

from ...phones import LONGEST, dial_codes, read_phone
from ...said import said
from ..model import Field
from .registry import TEXT, Fault, FieldType, Read, read_text, register


def _read(field: Field, value: object) -> Read:
    text, fault = read_text(field, value)
    if fault or not text:
        return text, fault
    number = read_phone(str(text), field.phone.country)
    if number is None and not field.phone.country and not str(text).startswith("+"):
        sentence = "Begin with + and the dial code of the country: +44 20 7946 0123."
        return None, said("phone_needs_plus", sentence)
    if number is None:
        return None, said("not_a_phone", "This is not a phone number; give all its digits.")
    allowed = offered(field)
    if number.country_code and number.country_code not in allowed:
        sentence = "Numbers of {country} are not taken here."
        return None, said("phone_of_country", sentence, country=number.country_code)
    return number.e164, ""


def offered(field: Field) -> list[str]:
    """The countries of which numbers are taken, ISO 3166-1 alpha-2."""
    codes = dial_codes(field.phone.only)
    return [code for code in codes if code not in field.phone.without]


def _faults(field: Field) -> list[Fault]:
    known = dial_codes()
    faults = [
        (f"phone/{name}/{index}", f"There is no dial code of {code!r}.")
        for name in ("only", "without", "first")
        for index, code in enumerate(getattr(field.phone, name))
        if code not in known
    ]
    if field.phone.country is not None and field.phone.country not in known:
        faults.append(("phone/country", f"There is no dial code of {field.phone.country!r}."))
    if not faults and not offered(field):
        faults.append(("phone", "No country is left: leave fewer of them out."))
    return faults


def _text(field: Field, value: object) -> str:
    number = read_phone(str(value))
    if number is None:
        return str(value)
    return number.national if field.phone.national else number.international


register(
    FieldType(
        "phone",
        "Phone",
        "A telephone number, with the dial code of its country.",
        _read,
        TEXT,
        LONGEST,
        faults=_faults,
        settings=("phone",),
        keeps_typed=True,
        text=_text,
    )
)
