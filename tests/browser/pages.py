"""Pages that are not ours, each with an address form of its own making; `got()` is what it knows.

What a page's own code knows of its fields stands in `window.got`: it is learnt from events alone.
"""

import shutil
from pathlib import Path

INPUTS = """
<form id="checkout">
  <label>Street <input name="ship_street"></label>
  <label>Town <input name="ship_town"></label>
  <label>Postcode <input name="ship_postcode" maxlength="10"></label>
  <label>Country <select name="ship_country">
    <option value="">Choose</option><option value="1">Germany</option>
    <option value="2">United Kingdom (GB)</option><option value="3">Ireland (IE)</option>
  </select></label>
  <label>Delivery note <input name="note"></label>
  <button type="submit">Order</button>
</form>
"""
_LISTENS = """
window.got = {};
function submits(form) {
  form.addEventListener("submit", (event) => {
    event.preventDefault();
    window.submitted = { ...window.got };
  });
}
function listen(root) {
  for (const name of ["street", "town", "postcode", "country"]) {
    const input = root.querySelector(`[name=ship_${name}]`);
    input.addEventListener("input", () => { window.got[name] = input.value; });
  }
  submits(root.querySelector("form"));
}
"""
_PLAIN = f"<main>{INPUTS}</main><script>{_LISTENS} listen(document);</script>"
_REDRAWN = f"""<main></main><template>{INPUTS}</template><script>
{_LISTENS}
const main = document.querySelector("main");
function draw() {{
  const copy = document.querySelector("template").content.cloneNode(true);
  for (const name of ["street", "town", "postcode", "country"]) {{
    const input = copy.querySelector(`[name=ship_${{name}}]`);
    input.value = window.got[name] ?? "";
    input.addEventListener("input", () => {{ window.got[name] = input.value; setTimeout(draw, 5); }});
  }}
  submits(copy.querySelector("form"));
  main.querySelector("form")?.remove();
  main.append(copy);
}}
draw();
</script>"""
_FRAME = """<iframe src="/frame.html" width="600" height="600" title="Checkout"></iframe><script>
for (const name of ["got", "submitted"]) {
  Object.defineProperty(window, name, { get: () => document.querySelector("iframe").contentWindow[name] });
}
</script>"""
OWN_PAGES = {"plain": _PLAIN, "redrawn": _REDRAWN, "frame": _FRAME}
# Pages that a shop has built with a library of today: tests/pages.
LIBRARIES = ("react", "vue", "svelte", "angular", "lit", "antd", "jquery")
PAGES = (*OWN_PAGES, *LIBRARIES)
_BUILT = Path(__file__).parents[2] / "build" / "test-pages"
FRAME = f"<!doctype html><meta charset=utf-8><title>Frame</title>{_PLAIN}"
TARGET = {
    "key": "checkout",
    "kind": "page",
    "title": "Checkout of the shop",
    "fields": [
        {
            "key": "street",
            "label": "Street",
            "find": [{"name": "ship_street"}, {"id": "ship_street"}],
        },
        {"key": "town", "label": "Town", "find": [{"label": "town:"}, {"name": "ship_town"}]},
        {
            "key": "postcode",
            "find": [{"css": "[name=ship_postcode], #ship_postcode"}],
            "max_length": 10,
        },
        {
            "key": "country",
            "label": "Country",
            "find": [{"name": "ship_country"}, {"id": "ship_country"}],
        },
    ],
    "addresses": [
        {
            "key": "delivery",
            "label": "Delivery",
            "countries": ["GB", "DE", "IE"],
            "finder": {"sits": "before", "at": "street", "label": "Find your address"},
            "mapping": [
                {"lines": "street", "into": "street"},
                {"components": ["town"], "into": "town"},
                {"components": ["postcode"], "into": "postcode"},
                {"components": ["country_code"], "into": "country"},
            ],
        }
    ],
}


def write_page(
    folder: Path, kind: str, url: str, key: str, policy: str = "", **attributes: str
) -> None:
    """Writes a page with the one line that attaches the target, and perhaps a content policy.

    Args:
        kind: one of PAGES, or what stands on the page.
    """
    given = {"target": "checkout", "key": key} | attributes
    data = " ".join(f'data-{name}="{value}"' for name, value in given.items())
    line = f'<script type="module" src="{url}/embed/attach.js" {data}></script>'
    if kind in LIBRARIES:
        shutil.copytree(_BUILT / "assets", folder / "assets", dirs_exist_ok=True)
        built = (_BUILT / f"{kind}.html").read_text()
        html = built.replace("</body>", f"{line}</body>")
    else:
        meta = f'<meta http-equiv="Content-Security-Policy" content="{policy}">' if policy else ""
        html = (
            f'<!doctype html><html lang="en"><meta charset="utf-8">{meta}<title>Shop</title>'
            f"<header><h1>Shop</h1></header>{OWN_PAGES.get(kind, kind)}{line}</html>"
        )
    (folder / "frame.html").write_text(FRAME)
    (folder / "index.html").write_text(html)
