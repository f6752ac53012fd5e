"""Pages whose fields are hard to see or to write: hidden ones, radio buttons, regions, split codes, tables."""

import pytest
from playwright.sync_api import expect

from anchorline.client import Client, PageTargetDocument

from .conftest import rows
from .pages import write_page

MEWS = "16 Abbey Mews"
KEEPS = """<script>
window.got = {};
for (const type of ["input", "change"]) document.addEventListener(type, ({ target }) => {
  const key = target.dataset.key ?? target.name;
  window.got[key] = target.type === "radio" ? document.querySelector(`[name=${target.name}]:checked`)?.value : target.type === "checkbox" ? target.checked : target.value ?? target.innerText;
}, true);
</script>"""


@pytest.fixture
def opened(page, shop, stack):
    """Opens a page with some fields, and a target for them."""
    origin, folder = shop
    with Client(stack.url, stack.access["server_key"]) as client:
        made = []

        def begin(html, fields, mapping, at=None):
            document = {
                "key": "odd", "kind": "page", "title": "Odd page", "origins": [origin],
                "fields": fields,
                "addresses": [{
                    "key": "home", "label": "Home", "countries": ["GB", "DE"],
                    "finder": {"at": at or fields[0]["key"]}, "mapping": mapping,
                }],
            }  # fmt: skip
            draft, _ = client.targets.put_draft(PageTargetDocument.model_validate(document))
            assert draft.problems == []
            client.targets.publish("odd")
            made.append(client.keys.make("browser", "Odd", origins=[origin], targets=["odd"]))
            write_page(folder, html + KEEPS, stack.url, made[0].secret, target="odd")
            page.goto(origin)
            return page

        yield begin
        for key in made:
            client.keys.end(key.key.id)
        client.targets.delete("odd")


def pick(page, text=MEWS):
    page.get_by_role("combobox", name="Find the address").fill(text.lower())
    rows(page).filter(has_text=text).first.click()
    expect(page.get_by_text("filled", exact=False).first).to_be_visible()


def got(page, key):
    return page.evaluate("(key) => window.got[key]", key)


STREET = {"key": "street", "label": "Street", "find": [{"label": "Street"}]}
LINE = {"lines": "street", "into": "street"}


def test_hidden_inputs_and_radio_buttons_are_written_and_what_is_not_is_said(opened):
    page = opened(
        """<form><p>Street <input name="s"></p><input type="hidden" name="iso" value="FRA">
        <fieldset><legend>Country</legend><label><input type="radio" name="land" value="1"> Germany</label>
        <label><input type="radio" name="land" value="2"> United Kingdom</label></fieldset>
        <fieldset><legend>Town</legend><label><input type="radio" name="ort" value="1"> Elsewhere</label></fieldset></form>""",
        [
            STREET,
            {"key": "iso", "type": "hidden", "label": "Code", "find": [{"name": "iso"}]},
            {"key": "land", "type": "radio", "label": "Country", "find": [{"name": "land"}]},
            {"key": "ort", "type": "radio", "label": "Town", "find": [{"name": "ort"}]},
        ],
        [
            LINE,
            {"components": ["country"], "into": "iso", "changes": [{"country": {"as": "alpha_3"}}]},
            {"components": ["country"], "into": "land"},
            {"components": ["town"], "into": "ort"},
        ],
    )
    pick(page)
    expect(page.get_by_text("3 fields filled. Not filled: Town.")).to_be_visible()
    assert (got(page, "iso"), got(page, "land")) == ("GBR", "2")
    assert page.locator("[name=ort]:checked").count() == 0


def test_a_text_area_and_an_editable_region_take_the_address_by_lines(opened):
    page = opened(
        """<p>Street <textarea name="s"></textarea></p><p>Label <div contenteditable="true" data-key="r" aria-label="Label"></div></p>""",
        [
            {**STREET, "several_lines": True},
            {"key": "label", "type": "region", "several_lines": True, "find": [{"label": "Label"}]},
        ],
        [{"fit": {"into": ["street"]}}, {"lines": "all", "into": "label"}],
    )
    pick(page)
    lines = ["16 Abbey Mews", "Brackwater", "QV1 1AA"]
    expect(page.locator("textarea")).to_have_value("\n".join(lines))
    for line in lines:
        expect(page.locator("[contenteditable]")).to_contain_text(line)
    expect(page.get_by_text("2 fields filled.")).to_be_visible()


def test_labels_in_cells_names_that_come_twice_and_split_codes_are_found(opened):
    block = """<tr><td colspan="2">{title}</td></tr><tr><td>Street</td><td><input name="a[]"></td></tr>
    <tr><td>Postcode</td><td><input name="p1" maxlength="4"> - <input name="p2" maxlength="3"></td></tr>"""
    page = opened(
        f"<table>{block.format(title='Invoice to')}{block.format(title='Deliver to')}</table>",
        [
            {**STREET, "find": [{"name": "a[]", "block": "Deliver to"}]},
            {
                "key": "code",
                "label": "Postcode",
                "pieces": [
                    {"find": [{"name": "p1", "position": 2}], "max_length": 4},
                    {"find": [{"name": "p2", "position": 2}], "max_length": 3},
                ],
            },
        ],
        [LINE, {"components": ["postcode"], "into": "code"}],
    )
    pick(page)
    expect(page.locator("input[name='a[]']").nth(1)).to_have_value(MEWS)
    assert [page.locator(f"[name={n}]").nth(1).input_value() for n in ("p1", "p2")] == [
        "QV1",
        "1AA",
    ]
    assert [page.locator("input[name='a[]']").first.input_value()] == [""]
    beside = page.evaluate("document.querySelector('[data-anchorline]').closest('tr').dataset")
    assert "anchorlineRow" in beside, "the finder has a row of its own"


def test_what_can_only_be_read_is_filled_when_it_no_longer_is(opened):
    page = opened(
        """<p>Street <input name="s"></p><p>Town <input name="t" readonly></p>""",
        [STREET, {"key": "town", "label": "Town", "find": [{"label": "Town"}]}],
        [LINE, {"components": ["town"], "into": "town"}],
    )
    pick(page)
    expect(
        page.get_by_text("1 field filled. Town: filled as soon as the page lets it.")
    ).to_be_visible()
    expect(page.locator("[name=t]")).to_have_value("")
    page.evaluate("document.querySelector('[name=t]').readOnly = false")
    expect(page.locator("[name=t]")).to_have_value("Brackwater")
    expect(page.get_by_text("2 fields filled.")).to_be_visible()


def test_what_a_page_makes_of_a_fill_is_nobody_s_handwork(opened):
    mask = """<script>document.querySelector("[name=t]").addEventListener("input", (event) => {
      const { target } = event; target.value = `» ${target.value.toUpperCase().slice(0, 4)} «`; });</script>"""
    page = opened(
        f"""<p>Street <input name="s"></p><p>Town <input name="t"></p>{mask}""",
        [STREET, {"key": "town", "label": "Town", "find": [{"label": "Town"}]}],
        [LINE, {"components": ["town"], "into": "town"}],
    )
    pick(page)
    pick(page, "5 Kiln Crescent")
    expect(page.locator("[name=s]")).to_have_value("5 Kiln Crescent")
    page.wait_for_timeout(300)
    expect(page.get_by_text("What you had typed by hand")).to_have_count(0)


def test_the_finder_looks_first_in_the_country_of_the_page_s_own_list(opened):
    page = opened(
        """<p>Street <input name="s"></p><p>Country <select name="c"><option value=""><option value="DEU">Germany
        <option value="GBR">United Kingdom</select></p>""",
        [STREET, {"key": "land", "type": "list", "label": "Country", "find": [{"name": "c"}]}],
        [
            LINE,
            {
                "components": ["country"],
                "into": "land",
                "changes": [{"country": {"as": "alpha_3"}}],
            },
        ],
    )
    finder = page.locator("anchorline-finder, [data-anchorline] >> css=anchorline-finder").first
    page.locator("[name=c]").select_option("DEU")
    page.get_by_role("combobox", name="Find the address").focus()
    expect(finder).to_have_attribute("country", "DE")
    expect(finder).to_have_attribute("elsewhere", "GB")
    pick(page)
    expect(page.locator("[name=c]")).to_have_value("GBR")


def typed_over(page, selector):
    """Somebody types there, and picks another address: whether they are asked about it."""
    box = page.locator(selector)
    box.click()
    box.press("Control+a")
    box.press_sequentially("By hand", delay=60)
    pick(page, "5 Kiln Crescent")
    expect(page.get_by_role("button", name="Keep “By hand”")).to_be_visible()


def test_what_stood_there_already_and_is_typed_over_is_asked_about(opened):
    town = {"key": "town", "label": "Town", "find": [{"label": "Town"}]}
    page = opened(
        """<p>Street <input name="s"></p><p>Town <input name="t" value="Brackwater"></p>""",
        [STREET, town], [LINE, {"components": ["town"], "into": "town"}],
    )  # fmt: skip
    pick(page)
    typed_over(page, "[name=t]")


def test_what_is_typed_into_a_field_that_the_page_has_drawn_anew_is_asked_about(opened):
    town = {"key": "town", "label": "Town", "find": [{"label": "Town"}]}
    page = opened(
        """<p>Street <input name="s"></p><p>Town <input name="t"></p>""",
        [STREET, town], [LINE, {"components": ["town"], "into": "town"}],
    )  # fmt: skip
    pick(page)
    page.wait_for_timeout(300)
    page.evaluate("""() => { const old = document.querySelector("[name=t]"), next = old.cloneNode();
      next.value = old.value; old.replaceWith(next); }""")
    typed_over(page, "[name=t]")
