"""Practice addresses over the API: asked for by name, used as all others, marked."""


def test_they_are_found_only_where_they_are_asked_for(stack):
    with stack.http("browser_key") as http:
        url = "/api/v1/suggest?q=lantern row&country=GB"
        assert http.get(url).json()["suggestions"] == []
        (street,) = http.get(f"{url}&practice=true").json()["suggestions"]
        assert street["id"].startswith("practice:")
        inside = http.get("/api/v1/suggest", params={"within": street["id"]}).json()
        identifiers = [one["id"] for one in inside["suggestions"]]
        assert identifiers[0] == "practice:GB1"
        whole = http.get("/api/v1/addresses/practice:GB1").json()
        assert (whole["practice"], whole["components"]["street"]) == (True, "Lantern Row")
        assert http.get("/api/v1/addresses/demo:GB0000012").json()["practice"] is False
        assert http.get("/api/v1/addresses/practice:GB99").status_code == 404


def test_one_fills_a_form_and_is_kept_with_its_origin(api):
    address = {"address_id": "practice:DE1"}
    filled = api.post("forms/tuning-visit/slots/piano/fill", json=address).json()
    assert filled["values"]["piano_street"] == "Lantern Row"
    values = {
        "contact": "Ada Brindle", "phone": "+44 20 555 0123", "visit": "tuning",
        **{key: text for key, text in filled["values"].items() if text},
    }  # fmt: skip
    slots = {"piano": {"country_code": "DE", **address}}
    made = api.post("forms/tuning-visit/records", json={"values": values, "slots": slots})
    assert made.status_code == 201, made.text
    assert made.json()["slots"]["piano"]["edition"] == "practice@1"


def test_no_dataset_can_have_their_name(stack):
    with stack.http("server_key") as http:
        refused = http.post("/api/v1/datasets/practice/editions", content=b"id,country_code\n",
                            headers={"Content-Type": "text/csv"})  # fmt: skip
        assert refused.status_code == 422
        assert "built in for practice" in refused.text
