"""Making forms over the API: unfinished drafts, changes, versions, what one can begin from."""

import pytest

from tests.states import ANY_STATE

FIELDS = [{"key": "name", "label": "Name"}, {"key": "fax", "label": "Fax"}]


@pytest.fixture
def server(stack):
    with stack.http("server_key") as http:
        yield http


def document(key="made", **more):
    return {"key": key, "kind": "web", "title": "Made", "fields": FIELDS, **more}


@pytest.fixture
def keep(server):
    """Keeps a draft whatever it was made from; forgets the forms that were made at the end."""
    made = []

    def put(body, unfinished=False):
        key = body["key"]
        made.append(key)
        known = server.get(f"/api/v1/forms/{key}/draft")
        headers = {"If-Match": known.headers["ETag"]} if known.status_code == 200 else {}
        query = "?unfinished=true" if unfinished else ""
        return server.put(f"/api/v1/forms/{key}/draft{query}", json=body, headers=headers)

    yield put
    for key in made:
        server.delete(f"/api/v1/forms/{key}")


def publish(server, key="made"):
    answer = server.post(f"/api/v1/forms/{key}/publish", headers=ANY_STATE)
    assert answer.status_code == 200, answer.text
    return answer.json()["published_version"]


def changes(server, key="made", **body):
    return server.post(f"/api/v1/forms/{key}/difference", json=body).json()


def test_an_unfinished_draft_is_kept_named_and_not_published(server, keep):
    broken = document(
        fields=[*FIELDS, {"key": "c", "type": "choice", "label": "C", "shown_when": "gone"}]
    )
    assert keep(broken).status_code == 422
    kept = keep(broken, unfinished=True)
    assert kept.status_code == 200
    assert [p["pointer"] for p in kept.json()["problems"]] == [
        "/fields/2/options", "/fields/2/shown_when",
    ]  # fmt: skip
    assert server.get("/api/v1/forms/made/draft").json()["problems"] == kept.json()["problems"]
    refused = server.post("/api/v1/forms/made/publish", headers=ANY_STATE)
    assert refused.status_code == 422
    assert refused.json()["errors"][0]["detail"] == "A choice needs at least one option."
    assert server.get("/api/v1/forms/made?draft=true").status_code == 200, "it can be tried"


@pytest.mark.parametrize(
    ("body", "pointer", "said"),
    [
        (document(fields=[FIELDS[0], FIELDS[0]]), "/fields", "is used 2 times; keys must differ"),
        (document(fields=[{**FIELDS[0], "shown_when": "nme"}]), "/fields/0/shown_when", "There is no field “nme”. Did you mean name?"),
        (
            document(fields=[{**FIELDS[0], "shown_when": "fax"}, {**FIELDS[1], "shown_when": "name"}]),
            "/fields/0/shown_when", "These depend on each other: “Name” → “Fax” → “Name”",
        ),
        (
            document(fields=[{**FIELDS[0], "shown_when": "fax"}, {"key": "p", "type": "page"}, FIELDS[1]]),
            "/fields/0/shown_when", "which is filled on a later page",
        ),
        (document(fields=[{"key": "c", "type": "choice", "label": "C"}]), "/fields/0/options", "at least one option"),
        (document(fields=[{"key": f"f{n}", "label": "F"} for n in range(501)]), "/fields", "At most 500 entries; there are 501."),
        (document(fields=[{**FIELDS[0], "shown_when": "1+" * 50_000 + "1"}]), "/fields/0/shown_when", "characters"),
        (
            document(slots=[{"key": "s", "label": "S", "countries": ["GB"], "parts": [], "mapping": [{"components": ["town"], "into": "twn"}]}]),
            "/slots/0/mapping/0/into", "There is no field 'twn'",
        ),
        (document(translations={"de": {"items": {"nme": {"label": "x"}}}}), "/translations/de/items/nme", "Did you mean name?"),
        (document(style="carousel"), "/style", "whole"),
    ],
)  # fmt: skip
def test_a_document_that_cannot_be_is_refused_with_its_place(keep, body, pointer, said):
    answer = keep(body)
    assert answer.status_code == 422
    found = {error["pointer"]: error["detail"] for error in answer.json()["errors"]}
    assert said in found[pointer]


def test_labels_that_are_markup_stay_text(server, keep):
    hostile = '<img src=x onerror="alert(1)">'
    body = document(fields=[{"key": "name", "label": hostile, "help": hostile}], title=hostile)
    assert keep(body).status_code == 200
    assert server.get("/api/v1/forms/made/draft").json()["document"]["title"] == hostile
    publish(server)
    page = server.get("/f/made").text
    assert hostile not in page
    assert "&lt;img src=x" in page


def test_publishing_says_what_changes_and_how_many_records_keep_a_value(server, keep):
    keep(document())
    assert changes(server) == {
        "changes": [], "problems": [], "warnings": [], "unreadable": 0, "is_new": True,
    }  # fmt: skip
    publish(server)
    assert changes(server) == {
        "changes": [], "problems": [], "warnings": [], "unreadable": 0, "is_new": False,
    }  # fmt: skip
    for fax in ("1", "2"):
        assert (
            server.post("/api/v1/forms/made/records", json={"values": {"fax": fax}}).status_code
            == 201
        )
    assert (
        server.post("/api/v1/forms/made/records", json={"values": {"name": "x"}}).status_code == 201
    )
    keep(document(fields=[{**FIELDS[0], "required": True}]))
    found = changes(server)["changes"]
    assert [(c["kind"], c["pointer"], c["detail"], c["records"]) for c in found] == [
        ("removed", "/fields/1", "“Fax” is removed: 2 records keep their value.", 2),
        ("changed", "/fields/0/required", "“Name” is now required.", None),
    ]
    other = document(fields=[*FIELDS, {"key": "on", "type": "date", "label": "On"}])
    assert [c["detail"] for c in changes(server, document=other)["changes"]] == [
        "“On” is new: a date."
    ]
    both = server.post("/api/v1/forms/made/difference", json={"document": other, "until": 1})
    assert both.status_code == 422
    elsewhere = server.post("/api/v1/forms/made/difference", json={"document": document("else")})
    assert elsewhere.json()["errors"][0]["pointer"] == "/document/key"


def test_versions_are_listed_looked_at_compared_and_gone_back_to(server, keep):
    key = "versions"
    keep(document(key))
    publish(server, key)
    keep(document(key, title="Second"))
    publish(server, key)
    listed = server.get(f"/api/v1/forms/{key}/versions").json()["versions"]
    assert [(v["number"], v["in_force"], v["changes"]) for v in listed] == [
        (2, True, ["The title is now “Second” instead of “Made”."]),
        (1, False, []),
    ]
    assert listed[0]["published_by"]
    first = server.get(f"/api/v1/forms/{key}/versions/1").json()
    assert (first["document"]["title"], first["version"]) == ("Made", 1)
    for wrong in ("3", "0", "x", "99999999999"):
        assert server.get(f"/api/v1/forms/{key}/versions/{wrong}").status_code == 404
    assert changes(server, key, since=2, until=1)["changes"][0]["detail"].startswith(
        "The title is now “Made”"
    )
    back = server.post(
        f"/api/v1/forms/{key}/restore", json={"version": 1}, headers=ANY_STATE
    ).json()
    assert (back["published_version"], back["draft_differs"]) == (1, False)
    assert server.get(f"/api/v1/forms/{key}").json()["document"]["title"] == "Made"
    assert server.get(f"/api/v1/forms/{key}/draft").json()["document"]["title"] == "Made", (
        "it follows"
    )
    keep(document(key, title="Third"))
    again = server.post(
        f"/api/v1/forms/{key}/restore", json={"version": 2}, headers=ANY_STATE
    ).json()
    assert (again["published_version"], again["draft_differs"]) == (2, True)
    assert server.get(f"/api/v1/forms/{key}/draft").json()["document"]["title"] == "Third", (
        "it stays"
    )
    assert publish(server, key) == 3, "a number is given once"
    closed = server.post(
        f"/api/v1/forms/{key}/restore", json={"version": 0}, headers=ANY_STATE
    ).json()
    assert closed["published_version"] is None
    assert server.get(f"/api/v1/forms/{key}").status_code == 404
    assert server.get(f"/f/{key}").status_code == 404
    assert (
        server.post(
            f"/api/v1/forms/{key}/restore", json={"version": 9}, headers=ANY_STATE
        ).status_code
        == 404
    )


def test_a_version_that_was_replaced_lately_can_still_be_sent(server, keep):
    key = "replaced"
    keep(document(key))
    publish(server, key)
    keep(document(key, fields=[{**FIELDS[0], "required": True}]))
    publish(server, key)
    old = {"values": {"fax": "1"}, "version": 1}
    record = server.post(f"/api/v1/forms/{key}/records", json=old)
    assert (record.status_code, record.json()["form_version"]) == (201, 1)
    never = server.post(f"/api/v1/forms/{key}/records", json={**old, "version": 7})
    assert never.status_code == 422
    assert never.json()["errors"][0]["pointer"] == "/version"
    now = server.post(f"/api/v1/forms/{key}/records", json={"values": {"fax": "1"}})
    assert now.status_code == 422


def test_a_form_with_records_is_not_deleted(server, keep):
    key = "with-records"
    keep(document(key))
    publish(server, key)
    server.post(f"/api/v1/forms/{key}/records", json={"values": {"name": "x"}})
    refused = server.delete(f"/api/v1/forms/{key}")
    assert refused.status_code == 409
    assert "has 1 record, for which it is needed" in refused.json()["detail"]
    keep(document("without"))
    publish(server, "without")
    assert server.delete("/api/v1/forms/without").status_code == 204
    assert server.get("/api/v1/forms/without/draft").status_code == 404
    assert server.delete("/api/v1/forms/without").status_code == 404


def test_editors_see_each_other_until_they_leave(server, keep):
    keep(document("edited"))
    path = "/api/v1/forms/edited/editors"
    first = server.post(path, json={"page": "aaaaaaaa"}).json()
    assert (first["editors"], first["revision"]) == ([], 1)
    second = server.post(path, json={"page": "bbbbbbbb"}).json()
    assert len(second["editors"]) == 1
    server.post(path, json={"page": "aaaaaaaa", "leaves": True})
    assert server.post(path, json={"page": "bbbbbbbb"}).json()["editors"] == []
    assert server.post(path, json={"page": "<script>"}).status_code == 422
    assert server.post("/api/v1/forms/gone/editors", json={"page": "aaaaaaaa"}).status_code == 404


def test_a_record_says_what_was_agreed_to_in_the_language_in_which_it_was_read(server, keep):
    consent = {"key": "ok", "type": "consent", "label": "I agree."}
    kinds = {
        "key": "kinds", "type": "choices", "label": "Kinds",
        "options": [{"value": "t", "label": "Tuning"}, {"value": "r", "label": "Repair"}],
    }  # fmt: skip
    german = {"de": {"items": {"ok": {"label": "Ich stimme zu."}}}}
    keep(document("agreed", fields=[consent, kinds], translations=german))
    publish(server, "agreed")
    filled = {"values": {"ok": True, "kinds": ["r", "t"]}}
    for language, text in (("de", "Ich stimme zu."), (None, "I agree."), ("fr", "I agree.")):
        answer = server.post("/api/v1/forms/agreed/records", json={**filled, "language": language})
        record = server.get(f"/api/v1/records/{answer.json()['id']}").json()
        assert record["agreed"] == {"ok": text}
        assert record["language"] == (language or "en")
        assert record["values"]["kinds"] == ["t", "r"]
        assert record["texts"] == {"ok": "yes", "kinds": "Tuning, Repair"}


def test_there_are_types_and_ready_made_forms_to_begin_from(server, keep):
    types = server.get("/api/v1/field-types").json()["types"]
    by_name = {one["name"]: one for one in types}
    assert by_name["number"]["settings"] == ["least", "most", "decimals", "unit"]
    assert (by_name["page"]["holds_value"], by_name["formula"]["is_filled"]) == (False, False)
    assert all(one["says"].endswith(".") for one in types)
    for ready in server.get("/api/v1/ready-made-forms").json()["forms"]:
        body = {**ready["document"], "key": f"ready-{ready['name']}"}
        assert keep(body).status_code == 200, ready["name"]


def test_a_table_proposes_a_form_in_the_countries_that_can_be_searched(server):
    answer = server.post("/api/v1/form-proposals", json={"text": "Name,Street,Town\n"}).json()
    (slot,) = answer["document"]["slots"]
    assert {"GB", "JP"} <= set(slot["countries"])
    assert [guess["becomes"] for guess in answer["guesses"]] == ["field", "part", "part"]
    refused = server.post("/api/v1/form-proposals", json={"text": " \n "})
    assert refused.json()["errors"][0]["pointer"] == "/text"
