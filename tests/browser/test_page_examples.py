"""The examples of docs/pages.md and docs/examples work as they stand, with address and key put in."""

import json
import re
import shutil
from pathlib import Path

import pytest
from playwright.sync_api import expect

from anchorline.client import Client, PageTargetDocument
from anchorline.yaml_documents import read_yaml

PROJECT = Path(__file__).parents[2]
BUILT = PROJECT / "build" / "test-pages"
GUIDE = (PROJECT / "docs" / "pages.md").read_text()
EXAMPLES = {
    "html": None,
    "react": "example-react",
    "vue": "example-vue",
    "angular": "example-angular",
}


@pytest.fixture
def guide_target(stack, shop):
    """The target that the guide writes down, published for the shop's origin, and a key for it."""
    (text,) = re.findall(r"```yaml\n(key: checkout\n.*?)```", GUIDE, re.DOTALL)
    document = {**read_yaml(text), "origins": [shop[0]], "paths": []}
    with Client(stack.url, stack.access["server_key"]) as client:
        client.targets.put_draft(PageTargetDocument.model_validate(document))
        client.targets.publish("checkout")
        made = client.keys.make("browser", "Guide", origins=[shop[0]], targets=["checkout"])
        yield made.secret
        client.keys.end(made.key.id)
        client.targets.delete("checkout")


@pytest.mark.parametrize("kind", EXAMPLES)
def test_an_example_of_the_guide_works_as_it_stands(page, stack, shop, guide_target, kind):
    origin, folder = shop
    built = EXAMPLES[kind]
    if built is None:
        shutil.copy(PROJECT / "docs/examples/page.html", folder / "index.html")
    else:
        shutil.copytree(BUILT / "assets", folder / "assets")
        shutil.copy(BUILT / f"{built}.html", folder / "index.html")
    for path in [folder / "index.html", *folder.glob("assets/example-*.js")]:
        text = path.read_text().replace("https://anchorline.example", stack.url)
        path.write_text(text.replace("anl_browser_…", guide_target))
    said = []
    page.on("console", lambda message: said.append(message.text))
    page.goto(origin)
    page.get_by_role("combobox", name="Find your address").fill("16 abbey mews")
    page.get_by_role("option").filter(has_text="16 Abbey Mews").first.click()
    expect(page.get_by_label("Postcode")).to_have_value("QV1 1AA")
    expect(page.get_by_label("Country")).to_have_value("GB")
    if built is not None:
        expect(page.locator("output")).to_contain_text("QV1 1AA")
        known = json.loads(page.locator("output").inner_text())
        assert known["ship_street"] == "16 Abbey Mews"
        page.evaluate("leave()")
        expect(page.locator("[data-anchorline]")).to_have_count(0)
    assert [one for one in said if "Anchorline" in one] == []
