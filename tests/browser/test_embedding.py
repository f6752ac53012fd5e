"""The custom elements on somebody else's page, from another origin, with a browser key."""

import re
import subprocess
import sys
from pathlib import Path

import pytest
from playwright.sync_api import expect

import anchorline.service

from .conftest import rows

PAGE = """<!doctype html><html lang="en"><title>Shop</title><h1>Shop</h1>
<script type="module" src="{url}/embed/anchorline.js"></script>
<anchorline-finder id="alone" label="Delivery" country="GB" base="{url}" access="{key}"></anchorline-finder>
<anchorline-form form="tuning-visit" base="{url}" access="{key}" level="2"></anchorline-form>
<script>
  addEventListener("anchorline-pick", (event) => {{ document.title = event.detail.label; }});
</script></html>"""


def browser_key(stack, origin):
    done = subprocess.run(
        [sys.executable, "-m", "anchorline.service", "key", "browser", "Shop",
         "--origin", origin, "--form", "tuning-visit"],
        env=stack.environment, capture_output=True, text=True, timeout=200,
    )  # fmt: skip
    return done.stdout.strip()


def test_the_elements_work_on_a_page_of_the_keys_origin(page, shop, stack, client):
    origin, folder = shop
    (folder / "index.html").write_text(PAGE.format(url=stack.url, key=browser_key(stack, origin)))
    page.goto(origin)
    alone = page.get_by_role("combobox", name="Delivery")
    alone.fill("16 abbey mews")
    rows(page).first.click()
    page.wait_for_function("document.title.startsWith('16 Abbey Mews')")
    page.get_by_label("Your name").fill("Embedded Quill")
    page.get_by_role("textbox", name="Phone").fill("+44 20 7946 0123")
    page.get_by_label("What is it about?").select_option("tuning")
    page.get_by_role("combobox", name="Find the address").first.fill("16 abbey mews")
    page.locator("anchorline-form anchorline-finder [role=option]").first.click()
    page.get_by_text(re.compile("fields filled")).wait_for()
    page.get_by_role("button", name="Send").click()
    page.get_by_role("heading", name="Thank you").wait_for()
    record = client.record(page.locator("code").inner_text())
    assert (record.values["contact"], record.made_by) == ("Embedded Quill", "Shop")


def console_of(page) -> list[str]:
    said: list[str] = []
    page.on("console", lambda message: said.append(message.text))
    return said


def test_on_a_page_of_another_origin_the_developer_reads_why(page, shop, stack):
    origin, folder = shop
    key = browser_key(stack, "https://elsewhere.example")
    (folder / "index.html").write_text(PAGE.format(url=stack.url, key=key))
    said = console_of(page)
    page.goto(origin)
    page.get_by_text("The form cannot be shown.").wait_for()
    expect(page.get_by_role("button", name="Try again")).to_be_visible()
    expect(page.get_by_text("browser key")).to_have_count(0)
    alone = page.get_by_role("combobox", name="Delivery")
    for text in ("kiln", "kiln c"):
        alone.fill(text)
        page.get_by_text("Type the address in yourself").first.wait_for()
        page.wait_for_timeout(400)
    why = [
        text for text in said if f"This browser key may not be used from {origin}: make one" in text
    ]
    assert [text.split(":")[0] for text in why] == ["<anchorline-form>", "<anchorline-finder>"]


FAULTS = [
    ('acces="{key}"', "there is no attribute “acces”. Did you mean “access”?"),
    ('access="{key}" colour="red"', "there is no attribute “colour”. It takes: label, country"),
    ('access="{key}" country="UK"', "There is no country 'UK'. Did you mean GB?"),
    ('access="{key}" kinds="strets"', "no kind of suggestion 'strets'. Did you mean street"),
    ("", "it needs “access”, a browser key of the service."),
    ('access="anl_browser_a_b"', "This key is not valid"),
]


@pytest.mark.parametrize(("attributes", "said"), FAULTS, ids=[said[:30] for _, said in FAULTS])
def test_a_finder_that_is_set_up_wrongly_says_so_to_its_developer_once(
    page, shop, stack, attributes, said
):
    origin, folder = shop
    attributes = attributes.format(key=browser_key(stack, origin))
    (folder / "index.html").write_text(
        f'<!doctype html><html lang="en"><title>Shop</title>'
        f'<script type="module" src="{stack.url}/embed/anchorline.js"></script>'
        f'<anchorline-finder label="Delivery" base="{stack.url}" data-x="1" class="a" {attributes}>'
        f"</anchorline-finder></html>"
    )
    heard = console_of(page)
    page.goto(origin)
    box = page.get_by_role("combobox", name="Delivery")
    for text in ("kiln", "kiln c"):
        box.fill(text)
        page.wait_for_timeout(500)
    ours = [text for text in heard if text.startswith("<anchorline-finder>")]
    assert len([text for text in ours if said in text]) == 1, heard
    assert "data-x" not in "".join(ours)


def test_a_form_that_is_not_there_is_named_with_the_nearest_one(page, shop, stack):
    origin, folder = shop
    html = PAGE.format(url=stack.url, key=browser_key(stack, origin))
    (folder / "index.html").write_text(html.replace('form="tuning-visit"', 'form="tuning-vist"'))
    heard = console_of(page)
    page.goto(origin)
    page.get_by_text("The form cannot be shown.").wait_for()
    assert [t for t in heard if t.startswith("<anchorline-form>") and "tuning-vist" in t], heard


def test_a_second_version_of_the_script_does_no_harm(page, shop, stack):
    origin, folder = shop
    html = PAGE.format(url=stack.url, key=browser_key(stack, origin))
    again = (
        f'<script type="module" src="{stack.url}/embed/anchorline.js?release=2"></script></html>'
    )
    (folder / "index.html").write_text(html.replace("</html>", again))
    heard = console_of(page)
    page.goto(origin)
    page.get_by_label("Your name").wait_for()
    page.get_by_role("combobox", name="Delivery").fill("16 abbey mews")
    rows(page).first.wait_for()
    assert any("loaded a second time" in text for text in heard)


def test_the_documented_way_into_ones_own_inputs_works(page, shop, stack):
    """The page in docs/integrators.md, with the service's address and a key put in."""
    origin, folder = shop
    text = (Path(__file__).parents[2] / "docs" / "integrators.md").read_text()
    example = re.search(r"```html\n(<anchorline-finder.*?)```", text, re.DOTALL)[1]
    example = example.replace("https://anchorline.example", stack.url)
    example = example.replace("anl_browser_…", browser_key(stack, origin))
    script = f'<script type="module" src="{stack.url}/embed/anchorline.js"></script>'
    (folder / "index.html").write_text(f'<!doctype html><html lang="en">{script}{example}</html>')
    page.goto(origin)
    page.get_by_role("combobox", name="Address").fill("16 abbey mews")
    rows(page).first.click()
    page.wait_for_function("() => document.getElementById('postcode').value")
    values = {
        name: page.locator(f"#{name}").input_value() for name in ("street", "town", "postcode")
    }
    assert values == {"street": "16 Abbey Mews", "town": "Brackwater", "postcode": "QV1 1AA"}


def test_types_are_shipped_and_whole(stack, tmp_path):
    """A program in TypeScript that uses the elements is checked against the shipped types."""
    web = Path(anchorline.service.__file__).parent / "web" / "embed"
    (tmp_path / "page.ts").write_text(
        f'import type {{ Address, PickDetail }} from "{web.as_posix()}/anchorline";\n'
        'const finder = document.createElement("anchorline-finder");\n'
        'finder.addEventListener("anchorline-pick", async (event) => {\n'
        "  const detail: PickDetail = event.detail;\n"
        "  const address: Address = await finder.address(detail.id);\n"
        "  const town: string | undefined = address.components.town;\n"
        "  console.log(town);\n"
        "});\n"
    )
    done = subprocess.run(
        [Path(__file__).parents[2] / "node_modules/.bin/tsc", "--noEmit", "--strict", "--target",
         "es2022", "--module", "esnext", "--moduleResolution", "bundler", "page.ts"],
        cwd=tmp_path, capture_output=True, text=True, timeout=400,
    )  # fmt: skip
    assert done.returncode == 0, done.stdout
    with stack.http(None) as http:
        assert http.get("/embed/anchorline.d.ts").status_code == 200
        assert http.get("/embed/types/index.d.ts").status_code == 200


def test_a_program_sets_reads_and_empties_a_finder(page, shop, stack):
    origin, folder = shop
    (folder / "index.html").write_text(PAGE.format(url=stack.url, key=browser_key(stack, origin)))
    page.goto(origin)
    page.get_by_role("combobox", name="Delivery").fill("kiln")
    rows(page).first.wait_for()
    alone = "document.getElementById('alone')"
    assert page.evaluate(f"{alone}.value") == "kiln"
    page.evaluate(f"{alone}.value = '16 Abbey Mews'")
    expect(page.get_by_role("combobox", name="Delivery")).to_have_value("16 Abbey Mews")
    expect(rows(page)).to_have_count(0)
    page.evaluate(f"{alone}.clear(); {alone}.focus()")
    expect(page.get_by_role("combobox", name="Delivery")).to_have_value("")
    expect(page.get_by_role("combobox", name="Delivery")).to_be_focused()
