import inspect

import httpx
import pytest

import anchorline.client
from anchorline.client import (
    Client,
    ConflictError,
    InvalidError,
    NotFoundError,
    RefusedError,
    ServiceFailedError,
    SlotInputSchema,
    TooManyError,
    UnexpectedAnswerError,
    UnreachableError,
    WrongArgumentError,
)
from anchorline.client.transport import Transport

OK = httpx.Response(
    200, json={"suggestions": [], "corrected": {}, "unmatched": [], "edition": "d@1"}
)


def problem(status, **headers):
    body = {"title": "T", "status": status, "detail": "what and why", "errors": [
        {"pointer": "/a", "detail": "not so"}]}  # fmt: skip
    return httpx.Response(status, json=body, headers=headers)


class Line:
    """A transport that gives prepared answers and remembers what was sent and waited."""

    def __init__(self, *answers):
        self.answers = list(answers)
        self.sent = []
        self.waited = []

    def client(self, **options):
        transport = httpx.MockTransport(self.answer)
        return Client(
            transport=Transport(
                "http://x", "k", http=transport, sleep=self.waited.append, **options
            )
        )

    def answer(self, request):
        self.sent.append(request)
        answer = self.answers.pop(0)
        if isinstance(answer, Exception):
            raise answer
        return answer


def test_a_call_carries_key_query_and_path():
    line = Line(OK)
    line.client().suggest("a b", country=("GB", "FR"), near=(1.5, 2))
    (request,) = line.sent
    assert request.headers["Authorization"] == "Bearer k"
    assert dict(request.url.params) == {"q": "a b", "country": "GB,FR", "near": "1.5,2"}


@pytest.mark.parametrize(
    ("status", "error"),
    [
        (400, InvalidError), (401, RefusedError), (403, RefusedError), (404, NotFoundError),
        (409, ConflictError), (412, ConflictError), (422, InvalidError), (500, ServiceFailedError),
    ],
)  # fmt: skip
def test_a_problem_becomes_an_exception_that_carries_its_detail(status, error):
    with pytest.raises(error) as caught:
        Line(problem(status)).client().suggest("x")
    assert str(caught.value) == "what and why\n  /a: not so"
    assert caught.value.status == status
    assert caught.value.errors[0].pointer == "/a"


def test_reading_is_tried_again_with_growing_pauses():
    line = Line(httpx.ConnectError("no"), problem(503), OK)
    line.client().suggest("x")
    assert len(line.sent) == 3
    first, second = line.waited
    assert 0.1 <= first <= 0.2 < 0.4
    assert 0.2 <= second <= 0.4


def test_the_pause_is_what_the_service_asks_for():
    line = Line(problem(429, **{"Retry-After": "7"}), OK)
    line.client().suggest("x")
    assert line.waited == [7.0]


def test_an_allowance_that_is_used_up_is_not_asked_for_again():
    line = Line(problem(429), OK)
    with pytest.raises(TooManyError):
        line.client().suggest("x")
    assert line.waited == []


def test_after_the_last_try_the_error_is_raised():
    with pytest.raises(TooManyError):
        Line(*[problem(429)] * 2).client(tries=2).suggest("x")
    with pytest.raises(UnreachableError, match="Is the service running"):
        Line(*[httpx.ReadTimeout("slow")] * 2).client(tries=2).suggest("x")


def test_a_submit_is_repeated_with_one_key_only():
    made = {"id": "r", "form": "f", "form_version": 1, "label": "", "made_by": "",
            "made_at": "2026-01-01T00:00:00Z", "values": {}, "labels": {}, "slots": {},
            "texts": {}, "agreed": {}, "language": "en"}  # fmt: skip
    line = Line(httpx.ReadError("gone"), httpx.Response(201, json=made))
    line.client().submit("f", {"a": 1})
    keys = {request.headers["Idempotency-Key"] for request in line.sent}
    assert len(line.sent) == 2
    assert len(keys) == 1


def test_a_change_without_a_key_is_never_repeated(client):
    line = Line(httpx.ReadError("gone"))
    with pytest.raises(UnreachableError):
        line.client().forms.put_draft(client.forms.draft("venue")[0].document)
    assert len(line.sent) == 1


def test_something_else_at_the_address_is_said_plainly():
    with pytest.raises(ServiceFailedError, match="answered 502 without saying why"):
        Line(httpx.Response(502, text="<html>")).client(tries=1).suggest("x")


def test_the_whole_path_through_the_live_service(client, stack):
    found = client.suggest("16 abbey mews", country="GB")
    address = client.address(found.suggestions[0].id)
    assert address.lines[0] == "16 Abbey Mews"
    assert client.lines("GB", address.components).lines == address.lines
    filled = client.fill("tuning-visit", "piano", address_id=address.id)
    values = {"contact": "Py", "phone": "+44 20 7946 0123", "visit": "repair"}
    values |= {k: v for k, v in filled.values.items() if v}
    with pytest.raises(InvalidError, match="Say of which country the address is"):
        client.submit("tuning-visit", values)
    record = client.submit("tuning-visit", values, {"piano": SlotInputSchema(country_code="GB")})
    assert client.record(record.id) == record
    assert record.id in [r.id for r in client.all_records(form="tuning-visit")]
    assert client.postcode("GB", "QV1 1AA").count > 1
    assert client.postcode("GB", "QV1").partial is True
    assert client.nearest(address.facts.latitude, address.facts.longitude).addresses
    assert client.check("GB", {"postcode": "qv11aa"}).components["postcode"] == "QV1 1AA"
    assert len(client.layouts().layouts) == 249
    assert client.overview().records > 0
    assert "tuning-visit" in [form.key for form in client.forms.list()]
    draft, etag = client.forms.draft("venue")
    assert client.forms.put_draft(draft.document, etag)[0].summary.draft_differs is False
    assert client.forms.publish("venue").published_version >= 1
    with pytest.raises(ConflictError):
        client.forms.put_draft(draft.document, etag='"999"')


def test_the_public_names_are_sorted_and_documented():
    assert anchorline.client.__all__ == sorted(anchorline.client.__all__)
    for name, method in inspect.getmembers(Client, inspect.isfunction):
        assert name.startswith("_") or method.__doc__, name


def answering(*answers):
    """A client of a service that gives these answers."""
    given = iter(answers)
    http = httpx.MockTransport(lambda _request: next(given))
    return Client(transport=Transport("http://x.example", "anl_server_a_b", http=http))


@pytest.mark.parametrize("url", ["", "   ", None, "127.0.0.1:8470", "ftp://x.example", "http://"])
def test_an_address_that_is_none_is_said_before_anything_is_sent(url):
    with pytest.raises(WrongArgumentError, match="give one such as"):
        Client(url, "anl_server_a_b")


@pytest.mark.parametrize("key", ["anl_sérver", "anl server", "anl\nserver"])
def test_a_key_that_cannot_be_one_is_said(key):
    with pytest.raises(WrongArgumentError, match="copy it again"):
        Client("http://x.example", key)


@pytest.mark.parametrize(
    ("call", "said"),
    [
        (lambda c: c.fill("f", "s"), "Give one of address_id, group_id and components"),
        (lambda c: c.fill("f", "s", address_id=5), "address_id"),
        (lambda c: c.fill("f", "s", address_id="a", components={}), "Give one of"),
        (lambda c: c.lines("GB", {"street": 5}), "components.street"),
        (lambda c: c.check("GB", {"street": "x" * 5000}), "At most 4000"),
        (lambda c: c.submit("f", {"a": {}}), "values.a"),
        (lambda c: c.suggest("\ud800"), "cannot be sent"),
        (lambda c: c.address("\ud800"), "cannot be sent"),
        (lambda c: c.submit("f", {"a": "\ud800"}), "a"),
    ],
)
def test_what_cannot_be_sent_is_an_error_of_the_client_that_says_what(call, said):
    with answering() as client, pytest.raises(WrongArgumentError) as caught:
        call(client)
    assert said in str(caught.value)
    assert "pydantic" not in str(caught.value)


@pytest.mark.parametrize(
    "answer",
    [
        httpx.Response(200, text="<html>hello</html>", headers={"Content-Type": "text/html"}),
        httpx.Response(200, json={"other": 1}),
        httpx.Response(200, content=b"\xff\xfe"),
        httpx.Response(204),
    ],
)
def test_something_else_that_answers_is_named(answer):
    with answering(answer) as client, pytest.raises(UnexpectedAnswerError) as caught:
        client.layouts()
    assert "http://x.example answered 20" in str(caught.value)
    assert "Is it an Anchorline service" in str(caught.value)


def test_a_record_names_its_addresses_by_the_slots_they_were_sent_in(client):
    values = {"contact": "Word", "phone": "+44 20 7946 0123", "visit": "repair", "piano_street": "Abbey Mews",
              "piano_town": "Brackwater", "piano_postcode": "qv11aa"}  # fmt: skip
    sent = {"piano": SlotInputSchema(country_code="GB")}
    record = client.submit("tuning-visit", values, sent)
    assert record.slots.keys() == sent.keys()
    assert record.slots["piano"].label == "Where the piano stands"
    assert record.slots["piano"].component_labels["town"] == "Post town"
    assert record.labels["contact"] == "Your name"
    assert record.labels["piano_town"] == "Where the piano stands: Post town"
