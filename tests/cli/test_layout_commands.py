"""`anchorline layouts`, driven as a process."""

import json

ADDRESSES = [
    {"country_code": "IE", "town": "Kilcorran", "region": "Kerry"},
    {"country_code": "JP", "postcode": "000-0001", "region": "東京都", "town": "橋水市", "number": "1-2"},
    {"number": 12, "street": "Abbey Lane", "town": "Brackwater", "unit": None},
]  # fmt: skip


def test_the_list_is_searched_by_name_and_code(run):
    whole = run("layouts", "list").stdout.splitlines()
    assert len(whole) == 250  # a heading, and a line a country
    assert [line.split()[0] for line in run("layouts", "list", "guinea").stdout.splitlines()] == [
        "code", "GQ", "GN", "GW", "PG",
    ]  # fmt: skip
    assert json.loads(run("layouts", "list", "réunion", "--json").stdout)[0]["post_of"] == "FR"
    nothing = run("layouts", "list", "atlantis")
    assert (nothing.returncode, "atlantis" in nothing.stderr) == (3, True)


def test_a_layout_is_shown_in_a_language_of_the_country(run):
    shown = run("layouts", "show", "CH", "--language", "fr")
    assert shown.returncode == 0, shown.stderr
    assert "Suisse (CH)" in shown.stdout
    assert "NPA" in shown.stdout
    assert "street number, unit" in shown.stdout
    assert "Postcodes: 9999 (9 a digit, A a letter, * either)" in shown.stdout
    territory = run("layouts", "show", "re")
    assert "beginning with 974" in territory.stdout
    assert "Uses the post of FR." in territory.stderr
    assert "no country code 'CHX'" in run("layouts", "show", "CHX").stderr


def test_many_addresses_are_written_out_from_the_input(run):
    source = "\n".join(json.dumps(address) for address in ADDRESSES) + "\n\n"
    written = run("layouts", "lines", "GB", source=source)
    assert written.stdout == (
        "KILCORRAN\nCo. Kerry\n\n〒000-0001\n東京都橋水市1-2\n\n12 Abbey Lane\nBRACKWATER\n"
    )
    abroad = run(
        "layouts", "lines", "GB", "--international", "--from", "DE", "--json", source=source
    )
    last = [json.loads(line)[-1] for line in abroad.stdout.splitlines()]
    assert last == ["IRLAND", "JAPAN", "VEREINIGTES KÖNIGREICH"]
    one = run("layouts", "lines", "GB", "town=Brackwater", source="")
    assert one.stdout == run("lines", "GB", "town=Brackwater").stdout == "BRACKWATER\n"


def test_a_line_that_cannot_be_used_is_named(run):
    for source, said in (
        ('{"town": "Au"}\nnot json\n', "Line 1 has no country_code"),
        ('{"country_code": "GB", "town": "Au"}\nnot json\n', "Line 2 is not JSON"),
        ('["GB"]\n', "Line 1 must be an object"),
        ('{"country_code": "GB", "twon": "Au"}\n', "Did you mean town"),
        ('{"country_code": "QQ", "town": "Au"}\n', "no country code 'QQ'"),
    ):
        failed = run("layouts", "lines", source=source)
        assert failed.returncode == 2
        assert said in failed.stderr
        assert "Traceback" not in failed.stderr


def test_a_check_says_what_is_wrong_and_what_has_no_place(run):
    wrong = run("layouts", "check", "US", "street=12 Oak St", "town=Cedarton",
                "region=Vermont", "postcode=90210")  # fmt: skip
    assert wrong.returncode == 2
    assert "postcode: 90210 lies in California, not in Vermont." in wrong.stdout
    right = run("layouts", "check", "DE", "street=Lindenstraße", "town=Au", "postcode=D-00011",
                "region=Nordland")  # fmt: skip
    assert right.returncode == 0
    assert "00011" in right.stdout
    assert "'Nordland' is kept" in right.stderr
