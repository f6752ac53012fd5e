"""The calls on telephone numbers."""

from __future__ import annotations

from anchorline.wire.phones import DialCodes, PhoneAnswer, PhoneCheck

from .calls import Calls, request_body


class PhoneCalls(Calls):
    """Telephone numbers, as methods of `Client`."""

    def dial_codes(self) -> DialCodes:
        """Dial codes by country."""
        return self._get("dial-codes", DialCodes)

    def check_phone(self, number: str, country_code: str | None = None) -> PhoneAnswer:
        """What a number comes to: in E.164, as in its country, and as abroad.

        Args:
            country_code: of a number that does not begin with a plus sign, ISO 3166-1 alpha-2.
        """
        body = request_body(PhoneCheck, number=number, country_code=country_code)
        return self._post("phone-checks", PhoneAnswer, body)
