"""API: telephone numbers."""

from __future__ import annotations

from dataclasses import asdict

from anchorline.core.phones import dial_codes, read_phone
from anchorline.wire.base import Schema
from anchorline.wire.phones import DialCodes, PhoneAnswer, PhoneCheck

from ..access import Access
from ..endpoints import ApiRequest, Router

router = Router("phones", "find", "records", "forms")


@router.endpoint("GET", "/dial-codes", access=Access.CAPTURE, answer=DialCodes)
def list_dial_codes(_request: ApiRequest) -> Schema:
    """Dial codes by country."""
    return DialCodes(dial_codes=dial_codes())


@router.endpoint(
    "POST", "/phone-checks", access=Access.CAPTURE, body=PhoneCheck, answer=PhoneAnswer
)
def check_phone(request: ApiRequest) -> Schema:
    """What a number comes to: in E.164, as in its country, and as abroad."""
    body = request.body(PhoneCheck)
    number = read_phone(body.number, body.country_code)
    return PhoneAnswer(e164=None) if number is None else PhoneAnswer(**asdict(number))
