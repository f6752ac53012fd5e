import pytest

from anchorline.service.recent_answers import KeptAnswer, RecentAnswers
from anchorline.wire.finding import Suggestions


def get(api, path, status=200, **query):
    answer = api.get(path, params=query)
    assert answer.status_code == status, answer.text
    return answer.json()


def test_a_prefix_of_a_street_is_suggested_with_the_typed_range(api):
    found = get(api, "suggest", q="kiln cre", country="GB")
    first = found["suggestions"][0]
    assert (first["kind"], first["label"]) == ("street", "Kiln Crescent, Brackwater")
    assert first["matches"] == [[0, 4], [5, 8]]
    assert first["count"] > 1
    assert found["edition"] == "demo@1"
    assert found["corrected"] == {}


def test_a_group_opens_page_by_page_to_every_address(api):
    street = get(api, "suggest", q="kiln crescent")["suggestions"][0]
    rows, after = [], None
    while True:
        query = {"within": street["id"], "limit": 10} | ({"after": after} if after else {})
        page = get(api, "suggest", **query)
        rows += page["suggestions"]
        after = page["after"]
        if after is None:
            break
    assert sum(row["count"] for row in rows) == street["count"]


def test_an_address_has_components_facts_and_lines(api):
    address = get(api, "addresses/demo:GB0000012")
    assert address["lines"] == ["16 Abbey Mews", "BRACKWATER", "QV1 1AA"]
    assert address["components"]["country"] == "United Kingdom"
    assert set(address["facts"]) == {"latitude", "longitude", "use", "languages"}
    few = get(api, "addresses/demo:GB0000012", components="town,postcode")
    assert few["components"] == {"town": "Brackwater", "postcode": "QV1 1AA"}


def test_postcodes_whole_partial_unknown_and_impossible(api):
    whole = get(api, "postcodes/GB/qv11qf")
    assert whole["postcode"] == "QV1 1QF"
    assert whole["count"] == len(whole["addresses"]) > 10
    partial = get(api, "postcodes/GB/QV1")
    assert partial["partial"] is True
    assert {"postcode": "QV1 1QF", "count": whole["count"]} in partial["postcodes"]
    assert partial["towns"] == ["Brackwater"]
    assert "no address" in get(api, "postcodes/GB/QV99 9ZZ", 404)["detail"]
    wrong = get(api, "postcodes/GB/12345", 422)
    assert "A9 9AA" in wrong["errors"][0]["detail"]


def test_nearest_is_nearest_first_and_within_the_radius(api):
    facts = get(api, "addresses/demo:GB0000012")["facts"]
    place = {"latitude": facts["latitude"], "longitude": facts["longitude"]}
    found = get(api, "nearest", **place, limit=5, radius_m=200)["addresses"]
    assert found[0]["id"] == "demo:GB0000012"
    assert found[0]["distance_m"] < 0.2
    metres = [a["distance_m"] for a in found]
    assert metres == sorted(metres)
    assert metres[-1] <= 200
    assert get(api, "nearest", latitude=0, longitude=-140)["addresses"] == []


def test_a_layout_gives_the_order_of_asking_in_the_language_asked_for(api):
    layout = get(api, "layouts/US")
    assert [c["component"] for c in layout["components"]][-2:] == ["region_code", "postcode"]
    assert layout["masks"] == ["99999", "99999-9999"]
    state = next(c for c in layout["components"] if c["component"] == "region_code")
    assert (state["label"], len(state["options"])) == ("State", 59)
    german = get(api, "layouts/DE", language="de")
    assert german["name"] == "Deutschland"
    assert german["components"][2]["label"] == "Straße"
    assert len(get(api, "layouts")["layouts"]) == 249


def test_lines_and_check_answer_as_the_country_does(api):
    body = {"components": {"street": "Lindenstraße", "number": "3", "town": "Au"}}
    lines = api.post("layouts/DE/lines", json=body | {"international": True}).json()
    assert lines == {
        "lines": ["Lindenstraße 3", "Au", "GERMANY"],
        "html": '<address dir="ltr" lang="de">Lindenstraße 3<br>Au<br>GERMANY</address>',
        "one_line": "Lindenstraße 3, Au",
        "left_out": [],
    }
    sent = api.post("layouts/DE/lines", json=body | {"international": True, "from_country": "FR"})
    assert sent.json()["lines"][-1] == "ALLEMAGNE"
    checked = api.post("layouts/DE/check", json=body).json()
    assert checked["components"] == body["components"]
    assert checked["problems"] == [
        {"component": "postcode", "detail": "Germany needs a Postcode here."}
    ]


@pytest.mark.parametrize(
    ("path", "query", "pointer", "detail"),
    [
        ("suggest", {"q": "x" * 201}, "?q", "At most 200 characters."),
        ("suggest", {"contry": "GB"}, "?contry", "Did you mean country"),
        ("suggest", {"country": "GB,XX"}, "?country", "no country 'XX'"),
        ("suggest", {"kinds": "strete"}, "?kinds", "Did you mean street"),
        ("suggest", {"near": "here"}, "?near", "latitude and longitude"),
        ("suggest", {"near": "91,0"}, "?near", "Latitude is from -90"),
        ("suggest", {"limit": "101"}, "?limit", "less than or equal to 100"),
        ("suggest", {"limit": "many"}, "?limit", "valid integer"),
        ("suggest", {"after": "-1"}, "?after", "not handed out"),
        ("addresses/demo:GB0000012", {"components": "twon"}, "?components", "Did you mean town"),
        ("nearest", {"latitude": "1"}, "?longitude", "This is needed."),
        ("nearest", {"latitude": "nan", "longitude": "0"}, "?latitude", "Input should be"),
        ("layouts", {"x": "1"}, None, "takes no query parameters"),
    ],
)  # fmt: skip
def test_a_wrong_query_says_where_and_what(api, path, query, pointer, detail):
    problem = get(api, path, 422, **query)
    if pointer is None:
        assert detail in problem["detail"]
    else:
        assert [e["pointer"] for e in problem["errors"]] == [pointer]
        assert detail in problem["errors"][0]["detail"]


@pytest.mark.parametrize(
    "path",
    ["suggest?within=demo:~1", "addresses/demo:nope", "addresses/x", "layouts/XX", "nope",
     "records/nope", "forms/nope", "forms/nope/records", "forms/nope/draft"],
)  # fmt: skip
def test_what_is_not_there_is_a_problem_and_not_a_page(api, path):
    answer = api.get(path)
    assert answer.status_code == 404
    assert answer.headers["Content-Type"] == "application/problem+json"
    assert answer.json()["detail"]


@pytest.mark.parametrize(
    "text", ["\x00", "%", "' OR 1=1 --", "<script>", "a" * 200, "🎹" * 50, "\ud7ff\uffff"]
)
def test_no_text_breaks_the_finder(api, text):
    assert get(api, "suggest", q=text)["edition"] == "demo@1"


def test_an_answer_says_what_it_read_and_what_there_is_not(api):
    found = get(api, "suggest", q="kiln cresent brackwatr", country="GB")
    assert found["corrected"] == {"cresent": "crescent", "brackwatr": "brackwater"}
    assert found["suggestions"][0]["label"] == "Kiln Crescent, Brackwater"
    found = get(api, "suggest", q="99 abbey mews", country="GB")
    assert found["unmatched"] == ["99"]
    assert found["suggestions"][1]["kind"] == "address"


def test_a_trace_is_given_where_it_is_asked_for(api):
    assert get(api, "suggest", q="kiln")["trace"] is None
    found = get(api, "suggest", q="klin crescent", trace="true")
    tried = [step["interpretation"] for step in found["trace"]["interpretations"]]
    assert (tried[0], tried[-1]) == ("as typed", "corrected")
    worth = found["trace"]["rows"][0]
    assert worth["id"] == found["suggestions"][0]["id"]
    assert sum(worth["parts"].values()) == pytest.approx(worth["score"], abs=0.05)


def test_an_unchanged_search_costs_nothing_again(api):
    first = api.get("suggest", params={"q": "kiln"})
    tag = first.headers["ETag"]
    again = api.get("suggest", params={"q": "kiln"}, headers={"If-None-Match": tag})
    assert (again.status_code, again.content) == (304, b"")
    assert "private" in first.headers["Cache-Control"]
    other = api.get("suggest", params={"q": "kilm"}, headers={"If-None-Match": tag})
    assert other.status_code == 200
    assert other.headers["ETag"] != tag


def test_an_answer_given_again_is_the_same_and_of_the_declared_shape(api):
    first, again = (api.get("suggest?q=kiln+cres&trace=true") for _ in range(2))
    assert first.content == again.content
    assert first.headers["ETag"] == again.headers["ETag"]
    schema = Suggestions.model_validate(first.json())
    assert schema.model_dump(mode="json") == first.json()
    assert schema.trace is not None
    bare = api.get("suggest?q=kiln+cres").json()
    assert bare["trace"] is None
    assert api.get("suggest?q=kiln+cres&limit=0").status_code == 422


def test_recent_answers_keep_what_is_asked_for_and_forget_the_rest():
    recent = RecentAnswers(size=8)
    for number in range(100):
        recent.put("demo@1", b"q=%d" % number, KeptAnswer(str(number), b"x"))
        assert recent.get("demo@1", b"q=0") is not None, "asked for all the time"
    held = [n for n in range(100) if recent.get("demo@1", b"q=%d" % n)]
    assert 3 <= len(held) <= 8
    assert recent.get("demo@2", b"q=0") is None, "of other editions"


def test_a_place_with_two_languages_is_found_and_filled_in_the_one_typed(api):
    (japanese,) = get(api, "suggest", q="霧谷市", kinds="town")["suggestions"]
    assert japanese["label"] == "東京都霧谷市"
    (latin,) = get(api, "suggest", q="kiritani shi", kinds="town")["suggestions"]
    assert latin == {
        **japanese,
        "id": f"{japanese['id']}@ja-Latn",
        "label": "Kiritani-shi, Tokyo",
        "matches": [[0, 8], [9, 12]],
    }
    asked = get(api, "suggest", q="霧谷市", kinds="town", language="ja-Latn")["suggestions"]
    assert [row["label"] for row in asked] == ["Kiritani-shi, Tokyo"]
    inside = get(api, "suggest", within=latin["id"], q="city hall")["suggestions"][0]
    address = get(api, f"addresses/{inside['id']}")
    assert address["id"].endswith("@ja-Latn")
    assert address["components"]["town"] == "Kiritani-shi"
    assert address["facts"]["languages"] == ["ja-Latn", "ja"]
    own = get(api, f"addresses/{inside['id'].partition('@')[0]}")
    assert own["components"]["town"] == "霧谷市"
    assert own["components"]["postcode"] == address["components"]["postcode"]


def test_a_language_that_is_none_is_refused(api):
    answer = api.get("suggest", params={"q": "kiln", "language": "no language"})
    assert answer.status_code == 422
    assert answer.json()["errors"] == [
        {
            "pointer": "?language",
            "detail": "Give a language as BCP 47 does: en, cy, fr-BE, ja-Latn.",
        }
    ]


def test_addresses_are_counted_once_however_many_languages_they_have(client):
    (edition,) = client.datasets.get("demo").editions
    assert edition.addresses == 6000
    assert edition.rows_used > edition.addresses
    (summary,) = (found for found in client.datasets.list() if found.name == "demo")
    assert summary.addresses == 6000


def test_many_addresses_are_written_out_and_every_faulty_one_is_named(api):
    some = [{"country_code": "FR", "town": "Épinoy"}, {"country_code": "gb", "town": "Marl"}]
    answer = api.post("layouts/lines", json={"addresses": some, "international": True})
    assert answer.json()["lines"] == [["ÉPINOY", "FRANCE"], ["MARL", "UNITED KINGDOM"]]
    assert answer.json()["left_out"][1] == [
        {"component": "country_code", "value": "gb",
         "reason": "The country is written as “UNITED KINGDOM”."}
    ]  # fmt: skip
    faulty = [{"town": "Au"}, {"country_code": "FR", "twon": "Au"}, some[0]]
    refused = api.post("layouts/lines", json={"addresses": faulty})
    assert refused.status_code == 422
    assert [e["pointer"] for e in refused.json()["errors"]] == [
        "/addresses/0/country_code", "/addresses/1/twon",
    ]  # fmt: skip
    assert api.post("layouts/lines", json={"addresses": [some[0]] * 1001}).status_code == 422
    sender = api.post("layouts/lines", json={"addresses": some, "from_country": "XX"})
    assert sender.json()["errors"][0]["pointer"] == "/from_country"


def test_what_a_country_has_no_place_for_is_kept_and_offered_elsewhere(api):
    given = {"street": "Kiln Row", "town": "Marl", "postcode": "qv11aa", "region_code": "XX",
             "district": "Eastside"}  # fmt: skip
    checked = api.post("layouts/SG/check", json={"components": given | {"postcode": "000001"}})
    assert {u["component"]: u["offered_to"] for u in checked.json()["unused"]} == {
        "district": None, "region_code": None,
    }  # fmt: skip
    assert checked.json()["components"]["district"] == "Eastside"
    german = api.post("layouts/QA/check", json={"components": {"region": "North", "town": "Doha"}})
    assert german.json()["unused"] == [
        {"component": "region", "value": "North", "offered_to": "district"}
    ]


def test_right_to_left_lines_say_so(api):
    body = {"components": {"street": "شارع النخيل", "number": "12", "town": "القرية"}}
    html = api.post("layouts/EG/lines", json=body).json()["html"]
    assert html.startswith('<address dir="rtl" lang="ar">')
    latin = api.post("layouts/EG/lines", json={"components": {"town": "<b>Au</b>"}}).json()["html"]
    assert latin == '<address dir="ltr">&lt;B&gt;AU&lt;/B&gt;</address>'
