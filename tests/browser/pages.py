"""Pages that are not ours, each with an address form of its own making; `got()` is what it knows.

What a page's own code knows of its fields stands in `window.got`: it is learnt from events alone.
"""

FIELDS = ("street", "town", "postcode", "country")
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
</form>
"""
_LISTENS = """
window.got = {};
function listen(root) {
  for (const name of ["street", "town", "postcode", "country"]) {
    const input = root.querySelector(`[name=ship_${name}]`);
    input.addEventListener("input", () => { window.got[name] = input.value; });
  }
}
"""
_PLAIN = f"<main>{INPUTS}</main><script>{_LISTENS} listen(document);</script>"
_REDRAWN = f"""<main></main><template>{INPUTS}</template><script>
window.got = {{}};
const main = document.querySelector("main");
function draw() {{
  const copy = document.querySelector("template").content.cloneNode(true);
  for (const name of ["street", "town", "postcode", "country"]) {{
    const input = copy.querySelector(`[name=ship_${{name}}]`);
    input.value = window.got[name] ?? "";
    input.addEventListener("input", () => {{ window.got[name] = input.value; setTimeout(draw, 5); }});
  }}
  main.querySelector("form")?.remove();
  main.append(copy);
}}
draw();
</script>"""
_SHADOW = f"""<x-checkout></x-checkout><template>{INPUTS}</template><script>
{_LISTENS}
customElements.define("x-checkout", class extends HTMLElement {{
  connectedCallback() {{
    const root = this.attachShadow({{ mode: "open" }});
    root.append(document.querySelector("template").content.cloneNode(true));
    listen(root);
  }}
}});
</script>"""
_FRAME = """<iframe src="/frame.html" width="600" height="600" title="Checkout"></iframe><script>
Object.defineProperty(window, "got", { get: () => document.querySelector("iframe").contentWindow.got });
</script>"""
PAGES = {"plain": _PLAIN, "redrawn": _REDRAWN, "shadow": _SHADOW, "frame": _FRAME}
FRAME = f"<!doctype html><meta charset=utf-8><title>Frame</title>{_PLAIN}"
TARGET = {
    "key": "checkout",
    "kind": "page",
    "title": "Checkout of the shop",
    "inputs": [
        {"key": "street", "label": "Street", "find": [{"name": "ship_street"}]},
        {"key": "town", "label": "Town", "find": [{"label": "town:"}, {"name": "ship_town"}]},
        {"key": "postcode", "find": [{"css": "[name=ship_postcode]"}], "max_length": 10},
        {"key": "country", "label": "Country", "find": [{"name": "ship_country"}]},
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


def page_html(body: str, url: str, key: str, policy: str = "", **attributes: str) -> str:
    """A page with the one line that attaches the target, and perhaps a content policy."""
    given = {"target": "checkout", "key": key} | attributes
    data = " ".join(f'data-{name}="{value}"' for name, value in given.items())
    meta = f'<meta http-equiv="Content-Security-Policy" content="{policy}">' if policy else ""
    return (
        f'<!doctype html><html lang="en"><meta charset="utf-8">{meta}<title>Shop</title><header><h1>Shop</h1></header>'
        f'{body}<script type="module" src="{url}/embed/attach.js" {data}></script></html>'
    )
