"""Links to records of other forms, over the API."""

import pytest

from anchorline.client import Client, FormDocument

TOWNS = {
    "key": "towns", "kind": "record", "title": "Towns",
    "fields": [{"key": "town", "label": "Town", "required": True}, {"key": "secret", "label": "Secret"}],
}  # fmt: skip
LINKING = {
    "key": "linking", "kind": "web", "title": "Linking",
    "fields": [{"key": "where", "type": "link", "label": "Where", "form": "towns", "shows": "town",
                "open_to_all": True}],
}  # fmt: skip


@pytest.fixture(scope="module")
def towns(stack):
    """A form of towns with records, and one that links to it."""
    with Client(stack.url, stack.access["server_key"]) as client:
        for document in (TOWNS, LINKING):
            client.forms.put_draft(FormDocument.model_validate(document))
            client.forms.publish(document["key"])
        names = ("Brackwater", "Brack", "São Marlo", "100 % town")
        return {n: client.submit("towns", {"town": n, "secret": f"s-{n}"}).id for n in names}


def offered(client, text):
    return [one.label for one in client.link_choices("linking", "where", text)]


def test_records_are_offered_by_what_the_link_shows_and_by_nothing_else(towns, client):
    assert offered(client, "") == ["100 % town", "Brack", "Brackwater", "São Marlo"]
    assert offered(client, "BRACK") == ["Brack", "Brackwater"]
    assert offered(client, "sao") == ["São Marlo"]
    assert offered(client, "0 %") == ["100 % town"]
    assert offered(client, "s-Brack") == [], "nobody finds out what else the records hold"


def test_a_link_is_kept_and_read_as_what_is_shown(towns, client):
    record = client.submit("linking", {"where": towns["Brack"]})
    assert record.values == {"where": towns["Brack"]}
    assert record.texts == {"where": "Brack"}
    assert client.record(record.id).texts == {"where": "Brack"}


@pytest.mark.parametrize(
    ("value", "said"),
    [
        ("Brack", "Choose one of the records that are offered."),
        ("r" + "0" * 24, "This record is not there any more"),
        (5, "Choose one of the records"),
    ],
)
def test_a_link_that_leads_nowhere_is_refused(towns, stack, value, said):
    with stack.http("server_key") as http:
        answer = http.post("/api/v1/forms/linking/records", json={"values": {"where": value}})
    assert answer.status_code == 422
    (error,) = answer.json()["errors"]
    assert (error["pointer"], said in error["detail"]) == ("/values/where", True)


def test_a_record_of_another_form_is_no_town(towns, client, stack):
    other = client.submit("linking", {"where": towns["Brack"]}).id
    with stack.http("server_key") as http:
        answer = http.post("/api/v1/forms/linking/records", json={"values": {"where": other}})
    assert answer.status_code == 422


def test_a_browser_key_asks_for_links_of_its_own_forms_alone(towns, stack):
    with stack.http("browser_key") as http:
        assert http.get("/api/v1/forms/linking/links/where").status_code == 403
    with stack.http("server_key") as http:
        missing = http.get("/api/v1/forms/linking/links/gone")
        assert missing.status_code == 404
        assert "has no link" in missing.json()["detail"]


def test_a_link_to_a_form_that_there_is_not_is_named(stack):
    lost = {**LINKING, "key": "lost", "fields": [{**LINKING["fields"][0], "form": "twns"}]}
    without = {**LINKING, "key": "lost", "fields": [{"key": "where", "type": "link", "label": "W"}]}
    with stack.http("server_key") as http:
        answer = http.put("/api/v1/forms/lost/draft", json=lost)
        assert answer.status_code == 422
        assert "twns" in answer.json()["errors"][0]["detail"]
        none = http.put("/api/v1/forms/lost/draft", json=without)
        assert none.json()["errors"][0]["pointer"] == "/fields/0/form"
