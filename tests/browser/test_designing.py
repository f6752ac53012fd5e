"""A form is made in the designer, tried in it, published, and filled."""

import re

from playwright.sync_api import expect

from .conftest import axe_faults, watched
from .designer import Designer

DISTANCE = (
    "IF(AND(ISPICKED(where_the_piano_stands); ISPICKED(where_the_piano_goes)); "
    'ROUND(KILOMETRES(where_the_piano_stands; where_the_piano_goes); 1); "")'
)
BAND = 'IF(distance <= 10; "A"; IF(distance <= 50; "B"; "C"))'


def test_a_whole_web_form_is_made_by_mouse_tried_published_and_filled_in_german(
    console, browser, stack, client
):
    form = Designer(console).begin(stack.url, "Piano visit")
    form.add("Page", "About you")
    form.add("Text", "Your name").switch("Must be filled")
    form.add("Phone", "Phone").switch("Must be filled")
    form.add("Choice of one", "What is it about?").options("Tuning", "Repair", "Moving the piano")
    form.switch("Must be filled")
    form.add("Page", "Where")
    form.add("Address", "Where the piano stands")
    form.add("Address", "Where the piano goes")
    form.condition("What is it about?", "Moving the piano")
    expect(form.settings.get_by_text("Shown when “What is it about?” is “Moving")).to_be_visible()
    form.add("Formula", "Distance").formula(DISTANCE).set("Unit behind it", "km")
    form.add("Formula", "Travel band").formula(BAND)
    form.add("Yes or no", "Send the bill to another address")
    form.add("Address", "Billing address").condition("Send the bill to another address")
    form.whole().choose("Filled how", "Page by page").choose("Also to be read in", "German")
    console.keyboard.press("Escape")
    form.select("About you").set("Label in German", "Über Sie")
    form.select("Your name").set("Label in German", "Ihr Name")
    form.kept()
    assert axe_faults(console) == []

    try_it(form)
    form.publish()
    record = fill_in_german(browser, stack)
    made = client.record(record)
    assert made.labels["distance"] == "Distance"
    assert re.fullmatch(r"[\d.]+ km", made.texts["distance"])
    assert made.texts["travel_band"] == "A"
    assert made.texts["what_is_it_about"] == "Moving the piano"
    assert made.language == "de"
    console.goto(f"{stack.url}/console/records/{record}")
    expect(console.get_by_text(made.texts["distance"], exact=True)).to_be_visible()
    expect(console.get_by_text("Moving the piano", exact=True)).to_be_visible()


def try_it(form: Designer) -> None:
    """Fills the live form while it is being made; its derived fields show at once."""
    live = form.live
    live.get_by_label("Your name").fill("Ada")
    live.get_by_role("textbox", name="Phone").fill("+44 20 555 0123")
    live.get_by_label("What is it about?").select_option("Moving the piano")
    live.get_by_role("button", name="Next").click()
    pick(live, 0)
    pick(live, 1, "12 kiln crescent")
    expect(live.locator("output#distance")).to_have_text(re.compile(r"^[\d.]+$"))
    expect(live.locator("output#travel_band")).to_have_text("A")
    live.get_by_role("button", name="Try sending it").click()
    expect(live.get_by_role("heading", name="What a record would hold")).to_be_visible()


def pick(
    where, number: int, typed: str = "16 abbey mews", called: str = "Find the address"
) -> None:
    box = where.get_by_role("combobox", name=called).nth(number)
    country = where.get_by_label(
        "Country" if called == "Find the address" else "Land", exact=True
    ).nth(number)
    country.select_option("GB")
    box.fill(typed)
    where.get_by_role("option", name=re.compile(typed, re.IGNORECASE)).first.click()


def fill_in_german(browser, stack) -> str:
    """A visitor fills it on a phone; returns the record's id."""
    context = browser.new_context(
        viewport={"width": 390, "height": 844}, has_touch=True, is_mobile=True, locale="de-DE",
        reduced_motion="reduce",
    )  # fmt: skip
    page = watched(context)
    page.goto(f"{stack.url}/f/piano-visit")
    expect(page.get_by_role("heading", name="Über Sie")).to_be_visible()
    assert axe_faults(page) == []
    page.get_by_role("button", name="Weiter").click()
    expect(page.get_by_text("3 Angaben fehlen noch")).to_be_visible()
    page.get_by_label("Ihr Name").fill("Jürgen Größwein")
    page.get_by_role("textbox", name="Phone").fill("12")
    page.get_by_label("What is it about?").select_option("Moving the piano")
    page.get_by_role("button", name="Weiter").click()
    expect(page.get_by_text("2 von 2")).to_be_visible()
    pick(page, 0, called="Anschrift suchen")
    pick(page, 1, "12 kiln crescent", called="Anschrift suchen")
    assert axe_faults(page) == []
    page.get_by_role("button", name="Absenden").click()
    # What the service finds wrong is said in German, on the page where it stands.
    expect(page.locator(".problem", has_text="Das ist keine Telefonnummer")).to_be_visible()
    expect(page.get_by_role("textbox", name="Phone")).to_be_focused()
    page.get_by_role("textbox", name="Phone").fill("+49 30 555 0123")
    page.get_by_role("button", name="Weiter").click()
    page.get_by_role("button", name="Absenden").click()
    expect(page.get_by_role("heading", name="Vielen Dank")).to_be_visible()
    record = page.locator("code").inner_text()
    assert page.faults == []
    context.close()
    return record


def test_a_form_is_made_and_published_by_keyboard_alone(console, stack, client):
    press, write = console.keyboard.press, console.keyboard.type
    console.goto(f"{stack.url}/console/forms/new")
    console.get_by_role("heading", name="New form").wait_for()
    tab_to(console, "A ready-made form")
    press("ArrowRight")
    tab_to(console, "Title")
    write("Call back")
    press("Enter")
    form = Designer(console)
    form.outline.wait_for()
    for kind, label in (("phone", "Your number"), ("text", "Your name")):
        tab_to(console, "Add something")
        press("Enter")
        console.get_by_role("dialog").wait_for()
        expect(console.get_by_label("Search what to add")).to_be_focused()
        write(kind)
        press("Enter")
        expect(console.get_by_role("dialog")).to_be_hidden()
        tab_to(console, "Label")
        press("Control+a")
        write(label)
        press("Tab")
    expect(form.outline.locator(".outline-text")).to_have_text(["Your number", "Your name"])
    tab_to(console, "Your name")
    press("Alt+ArrowUp")
    expect(form.outline.locator(".outline-text").first).to_have_text("Your name")
    tab_to(console, "Must be filled")
    press("Space")
    press("Control+z")
    expect(form.settings.get_by_role("switch", name="Must be filled")).not_to_be_checked()
    press("Control+Shift+z")
    expect(form.settings.get_by_role("switch", name="Must be filled")).to_be_checked()
    form.kept()
    tab_to(console, "Publish …")
    press("Enter")
    console.get_by_role("dialog").wait_for()
    tab_to(console, "Publish")
    press("Enter")
    expect(console.get_by_text("Version 1 is published.")).to_be_visible()
    (name, number) = client.form("call-back").document.fields
    assert (name.key, name.required, number.key, number.type) == (
        "your_name", True, "your_number", "phone",
    )  # fmt: skip


def tab_to(page, name, most=90):
    """Presses Tab until the control with this accessible name has the focus."""
    for _ in range(most):
        page.keyboard.press("Tab")
        focused = page.evaluate(
            """() => {
              let e = document.activeElement;
              while (e && e.shadowRoot && e.shadowRoot.activeElement) e = e.shadowRoot.activeElement;
              if (!e) return '';
              const own = e.getAttribute('aria-label') || e.labels?.[0]?.innerText || e.innerText;
              return (own || e.closest('label')?.innerText || '').trim();
            }"""
        )
        if focused == name:
            return
    raise AssertionError(f"{name!r} was not reached by {most} steps of Tab")


HEADER = (
    "Customer\tE-mail\tPhone\tDelivery street\tDelivery house no\tDelivery postcode\tDelivery town\t"
    "Rechnung Straße\tRechnung PLZ\tRechnung Ort\tPiano\tSince\n"
    "Ada Quill\tada@example.org\t+44 20 555 0123\tAbbey Mews\t16\tQV1 1AA\tBrackwater\t"
    "Lindenweg\t12345\tGroßlinden\tgrand\t2020-04-01\n"
)


def test_a_form_is_begun_from_the_head_of_a_table(console, stack, client):
    console.goto(f"{stack.url}/console/forms/new")
    console.get_by_text("The head of a table").click()
    console.get_by_label("Title of the form").fill("Customers of the table")
    console.get_by_label("The row with the names").fill(HEADER)
    console.get_by_role("button", name="Look at the columns").click()
    row = console.get_by_role("row", name=re.compile("Rechnung PLZ"))
    expect(row).to_contain_text("Postcode of the address “Rechnung”")
    expect(row).to_contain_text("“PLZ” is a name for this part of an address.")
    expect(console.get_by_role("row", name=re.compile("^Since"))).to_contain_text("Date")
    expect(console.locator("tbody tr[data-row-key]")).to_have_count(12)
    refused = console.get_by_role("row", name=re.compile("^Piano"))
    refused.get_by_text("leave out", exact=True).click()
    expect(refused).to_contain_text("You left it out.")
    assert axe_faults(console) == []
    console.get_by_role("button", name="Begin with this form").click()
    form = Designer(console)
    form.outline.wait_for()
    form.is_in_order("Customer", "E-mail", "Phone", "Delivery", "Rechnung", "Since")
    document = client.forms.draft("customers-of-the-table")[0].document
    assert [slot.key for slot in document.slots] == ["delivery", "rechnung"]
    assert {"components": ["street"], "into": "delivery_street"}.items() <= (
        next(rule for rule in document.slots[0].mapping if rule.into == "delivery_street")
        .model_dump().items()
    )  # fmt: skip


def test_things_are_moved_by_drag_duplicated_and_removed_with_a_way_back(console, stack):
    form = Designer(console).begin(stack.url, "Moved about")
    for label in ("First", "Second", "Third"):
        form.add("Text", label)
    handle = form.outline.get_by_role("button", name="Move First")
    target = form.outline.locator(".outline-row", has_text="Third")
    handle.hover()
    console.mouse.down()
    box = target.bounding_box()
    for step in (8, 20, box["height"] - 4):
        console.mouse.move(box["x"] + 20, box["y"] + step)
    console.mouse.up()
    expect(form.outline.locator(".outline-text")).to_have_text(["Second", "Third", "First"])
    handle.focus()
    for key in ("Space", "ArrowUp", "Space"):
        console.keyboard.press(key)
        console.wait_for_timeout(300)
    expect(form.outline.locator(".outline-text")).to_have_text(["Second", "First", "Third"])
    form.select("Second").settings.get_by_role("button", name="Duplicate").click()
    expect(form.outline.locator(".outline-text")).to_have_text(
        ["Second", "Second", "First", "Third"]
    )
    form.settings.get_by_role("button", name="Remove").click()
    console.get_by_text("“Second” is removed.").wait_for()
    console.locator(".ant-message").get_by_role("button", name="Undo").click()
    expect(form.outline.locator(".outline-text")).to_have_text(
        ["Second", "Second", "First", "Third"]
    )
    form.live.get_by_label("Third").click()
    expect(form.settings.get_by_role("heading", name="Third")).to_be_visible()


def test_a_formula_is_completed_checked_and_worked_out_as_it_is_typed(console, stack):
    form = Designer(console).begin(stack.url, "Worked out")
    form.add("Number", "How many pianos").add("Formula", "Price")
    editor = form.settings.get_by_role("textbox", name="What it comes to")
    editor.click()
    console.keyboard.press("Control+a")
    console.keyboard.type("=40 * pian")
    # People think in labels: the field is found by its label, and written by its key.
    option = console.get_by_role("option").first
    expect(option).to_contain_text("How many pianos")
    expect(form.settings.get_by_text("There is no field “pian”.")).to_be_visible()
    console.keyboard.press("Enter")
    expect(editor).to_have_text("=40 * how_many_pianos")
    form.live.get_by_label("How many pianos").fill("3")
    form.select("Price")
    expect(form.settings.get_by_text("In the live form: 120")).to_be_visible()
    expect(form.live.locator("output#price")).to_have_text("120")
    editor.click()
    console.keyboard.press("Control+End")
    console.keyboard.type(" + roundu")
    info = console.locator(".cm-completionInfo")
    expect(info).to_contain_text("ROUNDUP(")
    assert axe_faults(console) == []


def test_versions_are_looked_at_and_gone_back_to(console, stack, client):
    form = Designer(console).begin(stack.url, "Twice published")
    form.add("Text", "First").kept()
    form.publish()
    form.set("Label", "Changed").kept()
    assert form.publish() == ["“First” is now called “Changed”."]
    console.get_by_role("button", name="Versions").click()
    drawer = console.get_by_role("dialog", name="Versions")
    expect(drawer.get_by_text("“First” is now called “Changed”.")).to_be_visible()
    drawer.get_by_role("button", name="Look at it").last.click()
    expect(drawer.locator("anchorline-form").get_by_text("First")).to_be_visible()
    assert axe_faults(console) == []
    drawer.get_by_role("button", name="Go back to it").click()
    console.get_by_role("button", name="Go back", exact=True).click()
    expect(console.get_by_text("Version 1 holds.")).to_be_visible()
    assert client.form("twice-published").document.fields[0].label == "First"
    drawer.get_by_role("button", name="Close the form").click()
    console.get_by_role("button", name="Close it").click()
    expect(console.get_by_text("Nobody can fill the form any more.")).to_be_visible()
    assert client.forms.draft("twice-published")[0].summary.published_version is None
