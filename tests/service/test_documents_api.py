"""The life of documents over HTTP, the same for every kind."""

import threading
import uuid
from collections import Counter

import pytest

from anchorline.service.app import ROUTERS
from anchorline.service.documents import FORM_API, OWN_LAYOUT_API, TARGET_API, document_router
from anchorline.service.mappings import MAPPING_ROUTERS
from tests.states import ANY_STATE

FORM = {"kind": "record", "title": "T", "fields": [{"key": "note", "label": "Note"}], "slots": []}
OWN = {"title": "T", "countries": ["FO"], "ask": [{"component": "town", "label": {"en": "Place"}}]}
TARGET = {
    "kind": "page", "title": "T", "origins": ["https://a.example"],
    "fields": [{"key": "town", "label": "Town", "find": [{"name": "town"}]}],
    "addresses": [{"key": "home", "label": "Home", "countries": ["GB"], "finder": {"at": "town"},
                   "mapping": [{"lines": "street", "into": "town"}]}],
}  # fmt: skip
KINDS = {"forms": FORM, "layouts/own": OWN, "targets": TARGET}


class Documents:
    """One kind of document, spoken to over HTTP; what it made goes at the end."""

    def __init__(self, http, path, document):
        self._http, self.path, self._document, self._made = http, path, document, []

    def new_key(self):
        self._made.append(f"life-{uuid.uuid4().hex[:10]}")
        return self._made[-1]

    def document(self, key, title="T", **more):
        return self._document | {"key": key, "title": title} | more

    def call(self, method, key, below="", **given):
        return self._http.request(method, f"{self.path}/{key}{below}", **given)

    def put(self, key, title="T", tag=None, **more):
        headers = {"If-Match": tag} if tag else {}
        body = self.document(key, title, **more)
        return self.call("PUT", key, "/draft", json=body, headers=headers)

    def made(self, title="T"):
        key = self.new_key()
        answer = self.put(key, title)
        assert answer.status_code == 200, answer.text
        return key, answer.headers["ETag"]

    def published(self, title="T"):
        key, tag = self.made(title)
        answer = self.call("POST", key, "/publish", headers={"If-Match": tag})
        assert answer.status_code == 200, answer.text
        return key, answer.headers["ETag"]

    def clean(self):
        for key in self._made:
            assert self.call("DELETE", key).status_code in (204, 404)


@pytest.fixture(params=list(KINDS))
def documents(request, api):
    made = Documents(api, request.param, KINDS[request.param])
    yield made
    made.clean()


@pytest.mark.parametrize(
    ("routers", "fewest"),
    [([document_router(api) for api in (FORM_API, OWN_LAYOUT_API, TARGET_API)], 11),
     (MAPPING_ROUTERS, 8)],
    ids=["documents", "mappings"],
)  # fmt: skip
def test_every_kind_has_every_call(routers, fewest):
    def below(rule):
        return rule.partition(">")[2].replace("/slots/", "/addresses/")

    by_kind = [{(e.method, below(e.rule)) for e in router.endpoints} for router in routers]
    assert len(by_kind[0]) >= fewest
    assert all(calls == by_kind[0] for calls in by_kind)
    assert {e.name for r in routers for e in r.endpoints} <= {
        e.name for r in ROUTERS for e in r.endpoints
    }


def test_a_document_goes_from_its_draft_to_versions_and_back(documents):
    key, tag = documents.made("One")
    first = documents.call("POST", key, "/publish", headers={"If-Match": tag})
    assert first.json()["published_version"] == 1
    tag = documents.put(key, "Two", first.headers["ETag"]).headers["ETag"]
    told = documents.call("GET", key, "/difference").json()
    assert [one["detail"] for one in told["changes"]] == [
        "The title is now “Two” instead of “One”."
    ]
    assert (told["problems"], told["is_new"]) == ([], False)
    tag = documents.call("POST", key, "/publish", headers={"If-Match": tag}).headers["ETag"]
    listed = documents.call("GET", key, "/versions").json()
    assert [(one["number"], one["in_force"]) for one in listed["versions"]] == [
        (2, True),
        (1, False),
    ]
    assert listed["versions"][0]["changes"] == ["The title is now “Two” instead of “One”."]
    # Of what nothing is made with, no number is told.
    assert listed["versions"][0]["records"] == (0 if documents.path == "forms" else None)
    page = documents.call("GET", key, "/versions?limit=1").json()
    rest = documents.call("GET", key, f"/versions?limit=1&after={page['after']}").json()
    assert [one["number"] for one in (*page["versions"], *rest["versions"])] == [2, 1]
    assert rest["after"] is None
    as_it_was = documents.call("GET", key, "/versions/1").json()
    assert (as_it_was["document"]["title"], as_it_was["version"]) == ("One", 1)
    back = documents.call("POST", key, "/restore", json={"version": 1}, headers={"If-Match": tag})
    assert (back.json()["published_version"], back.json()["draft_differs"]) == (1, False)
    assert documents.call("GET", key, "/draft").json()["document"]["title"] == "One"
    tag = documents.put(key, "Mine", back.headers["ETag"]).headers["ETag"]
    taken = documents.call("POST", key, "/take-back", headers={"If-Match": tag})
    assert (taken.json()["title"], taken.json()["draft_differs"]) == ("One", False)
    none = documents.call(
        "POST", key, "/restore", json={"version": 0}, headers={"If-Match": taken.headers["ETag"]}
    )
    assert none.json()["published_version"] is None
    assert documents.call("POST", key, "/take-back", headers=ANY_STATE).status_code == 404
    for number in (3, 99):
        gone = documents.call("POST", key, "/restore", json={"version": number}, headers=ANY_STATE)
        assert gone.status_code == 404


def test_what_changes_a_document_says_which_state_it_is_about(documents):
    key, tag = documents.published()
    stale = {"If-Match": '"1-0"'}
    for method, below, body in (
        ("PUT", "/draft", documents.document(key, "Two")),
        ("POST", "/publish", None),
        ("POST", "/restore", {"version": 1}),
        ("POST", "/take-back", None),
    ):
        given = {} if body is None else {"json": body}
        assert documents.call(method, key, below, **given).status_code == 428, below
        odd = documents.call(method, key, below, headers={"If-Match": '"nonsense"'}, **given)
        assert odd.status_code == 412, below
        assert odd.headers["ETag"] == tag
    for method, below, body in (
        ("POST", "/restore", {"version": 1}), ("POST", "/take-back", None), ("DELETE", "", None),
    ):  # fmt: skip
        given = {} if body is None else {"json": body}
        refused = documents.call(method, key, below, headers=stale, **given)
        assert (refused.status_code, "Get it anew" in refused.text) == (412, True), below
    assert documents.call("DELETE", key, headers={"If-Match": tag}).status_code == 204
    assert documents.put(key, "Two", "*").status_code == 412
    again = documents.put(key, "Two", tag)
    assert (again.status_code, "without If-Match" in again.text) == (412, True)


def test_two_that_make_the_same_new_document_at_once_are_told_who_was_first(documents):
    codes = Counter()
    for _ in range(8):
        key, meet, given = documents.new_key(), threading.Barrier(2), []

        def put(key=key, meet=meet, given=given):
            meet.wait(20)
            given.append(documents.put(key).status_code)

        threads = [threading.Thread(target=put) for _ in range(2)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join(60)
        codes.update([tuple(sorted(given))])
    # 428 for whoever came when it was there already.
    assert set(codes) <= {(200, 412), (200, 428)}, codes


def test_what_is_published_beside_an_autosave_is_what_was_checked(documents):
    """A draft that is right is published while one that is wrong is kept in its place."""
    if documents.path != "forms":
        pytest.skip("drafts of other kinds that are wrong are kept in other ways")
    outcomes = Counter()
    for _ in range(12):
        key, tag = documents.made("Right")
        meet, given = threading.Barrier(2), {}
        wrong = [{"key": "note", "label": "Note", "formula": "no_such_field + 1"}]

        def publish(key=key, tag=tag, meet=meet, given=given):
            meet.wait(20)
            answer = documents.call("POST", key, "/publish", headers={"If-Match": tag})
            given["publish"] = answer.status_code

        def keep(key=key, tag=tag, meet=meet, given=given, wrong=wrong):
            meet.wait(20)
            body = documents.document(key, "Wrong", fields=wrong)
            answer = documents.call(
                "PUT", key, "/draft?unfinished=true", json=body, headers={"If-Match": tag}
            )
            given["keep"] = answer.status_code

        threads = [threading.Thread(target=one) for one in (publish, keep)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join(60)
        assert given["keep"] == 200, given
        if given["publish"] == 200:
            assert documents.call("GET", key, "/versions/1").json()["document"]["title"] == "Right"
            assert documents.call("GET", key).status_code == 200
        else:
            assert given["publish"] == 412, given
        outcomes[given["publish"]] += 1
    assert sum(outcomes.values()) == 12


def test_a_copy_is_a_draft_of_its_own_and_made_once(documents):
    key, _tag = documents.published("One")
    other = documents.new_key()
    once = {"Idempotency-Key": f"copy-{other}"}
    body = {"key": other, "title": "Other"}
    made = documents.call("POST", key, "/copy", json=body, headers=once)
    assert (made.status_code, made.json()["document"]["title"]) == (201, "Other")
    assert made.json()["summary"]["published_version"] is None
    documents.put(other, "Changed", made.headers["ETag"])
    again = documents.call("POST", key, "/copy", json=body, headers=once)
    assert (again.status_code, again.json()["document"]["title"]) == (201, "Changed")
    twice = documents.call("POST", key, "/copy", json=body)
    assert (twice.status_code, "choose another key" in twice.text) == (409, True)
    reused = documents.call("POST", key, "/copy", json={**body, "title": "X"}, headers=once)
    assert reused.status_code == 409
    for wrong in ("", "Not a key", "x" * 65):
        assert documents.call("POST", key, "/copy", json={"key": wrong}).status_code == 422


def test_a_list_comes_page_by_page(documents, api):
    keys = {documents.made(f"Paged {n}")[0] for n in range(3)}
    plural = documents.path.rpartition("/")[2].replace("own", "own_layouts")
    found, after = [], None
    while True:
        query = {"limit": 1, "search": "paged", **({"after": after} if after else {})}
        page = api.get(documents.path, params=query).json()
        assert len(page[plural]) <= 1
        found += [one["key"] for one in page[plural]]
        after = page["after"]
        if after is None:
            break
    assert set(found) == keys
    for wrong in ({"limit": 0}, {"limit": 501}, {"after": "nonsense"}):
        assert api.get(documents.path, params=wrong).status_code == 422, wrong


def test_who_has_a_draft_open_is_told(documents):
    key, _tag = documents.made()
    assert documents.call("POST", key, "/editors", json={"page": "page1a"}).json()["editors"] == []
    other = documents.call("POST", key, "/editors", json={"page": "page2b"}).json()
    assert len(other["editors"]) == 1
    documents.call("POST", key, "/editors", json={"page": "page1a", "leaves": True})
    assert documents.call("POST", key, "/editors", json={"page": "page2b"}).json()["editors"] == []
    missing = documents.call("POST", "not-there", "/editors", json={"page": "page1a"})
    assert missing.status_code == 404


def test_a_restored_version_is_checked_anew(api):
    """A version that names a form that is gone by now is not published again."""
    forms = Documents(api, "forms", FORM)
    linked, tag = forms.published("Towns")
    link = {"key": "town", "label": "Town", "type": "link", "form": linked}
    key = forms.new_key()
    forms.put(key, "Visit", fields=[link])
    assert forms.call("POST", key, "/publish", headers=ANY_STATE).status_code == 200
    needed = forms.call("DELETE", linked, headers={"If-Match": tag})
    assert (needed.status_code, "“Visit”" in needed.json()["detail"]) == (409, True)
    draft = forms.call("GET", key, "/draft").headers["ETag"]
    forms.put(key, "Visit", draft)
    assert forms.call("POST", key, "/publish", headers=ANY_STATE).status_code == 200
    assert forms.call("DELETE", linked).status_code == 204
    refused = forms.call("POST", key, "/restore", json={"version": 1}, headers=ANY_STATE)
    assert refused.status_code == 422
    assert refused.json()["errors"][0]["pointer"] == "/fields/0/form"
    assert forms.call("GET", key, "/versions").json()["versions"][0]["in_force"]
    forms.clean()


def test_addresses_of_an_earlier_release_are_answered_still(api):
    own = Documents(api, "layouts/own", OWN)
    key, tag = own.made()
    before = api.get(f"own-layouts/{key}/draft")
    assert (before.status_code, before.headers["ETag"]) == (200, tag)
    assert key in {one["key"] for one in api.get("own-layouts").json()["own_layouts"]}
    own.clean()


def test_who_fills_forms_may_list_them_and_read_no_draft(stack, client):
    secret = client.keys.make("server", "Records alone", scopes=["records"]).secret
    with stack.http(None, Authorization=f"Bearer {secret}") as http:
        assert http.get("/api/v1/forms").status_code == 200
        assert http.get("/api/v1/forms/venue/draft").status_code == 403
        for path in ("layouts/own", "targets"):
            assert http.get(f"/api/v1/{path}").status_code == 403, path


def test_a_key_that_is_made_twice_by_one_request_is_made_once(api):
    """Its secret was told then; what is said now is which key to end."""
    once = {"Idempotency-Key": f"key-{uuid.uuid4().hex}"}
    body = {"kind": "server", "name": "Once", "scopes": ["find"]}
    made = api.post("keys", json=body, headers=once)
    assert made.status_code == 201
    again = api.post("keys", json=body, headers=once)
    assert (again.status_code, made.json()["key"]["id"] in again.text) == (409, True)
    assert made.json()["secret"] not in again.text
    assert api.post("keys", json={**body, "name": "Other"}, headers=once).status_code == 409
    api.post(f"keys/{made.json()['key']['id']}/end")


def test_a_look_and_a_run_that_are_sent_twice_are_kept_once(api):
    once = {"Idempotency-Key": f"look-{uuid.uuid4().hex}"}
    body = {"facts": [{"kind": "title", "text": "Once"}], "machine": "m"}
    first, second = (api.post("looks", json=body, headers=once) for _ in range(2))
    assert (first.status_code, first.json()["id"]) == (201, second.json()["id"])
    api.delete(f"looks/{first.json()['id']}")
    gone = api.post("looks", json=body, headers=once)
    assert (gone.status_code, "deleted by now" in gone.text) == (404, True)
    targets = Documents(api, "targets", TARGET)
    key, _tag = targets.published()
    run = {"address": "home", "version": 1, "outcome": "verified", "ms": 400}
    for _ in range(2):
        assert api.post(f"targets/{key}/runs", json=run, headers=once).status_code == 204
    assert len(api.get(f"targets/{key}/runs").json()["runs"]) == 1
    targets.clean()


def test_a_run_over_many_addresses_that_is_asked_for_twice_is_one_job(api):
    once = {"Idempotency-Key": f"run-{uuid.uuid4().hex}"}
    path = "forms/tuning-visit/slots/piano/coverage"
    asked = [api.post(path, json={"per_country": 2}, headers=once) for _ in range(2)]
    assert [one.status_code for one in asked] == [202, 202]
    assert asked[0].json()["id"] == asked[1].json()["id"]
