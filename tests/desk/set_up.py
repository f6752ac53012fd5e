"""Targets of the stand-ins, made as people make them: looks, the fields as they name them, a proposal."""

from dataclasses import replace

from anchorline.core.targets.programs import SeenField
from anchorline.desk.known_targets import known_target
from anchorline.desk.setting_up import Looks, SettingUp, SetUp
from anchorline.desk.writing import Place

from .desktop import until

# What a person says of each field, in the order of the Tab key; an empty text for one to pass over.
FIELDS = {
    "contacts": [("Address line 1",), ("Address line 2",), ("Town",), ("Postcode",), ("Country",)],
    "firms": [
        ("Organisation",), ("Address line 1",), ("",), ("",), ("Address line 2",), ("Postcode",),
        ("Town",), ("Country",),
    ],
    "letters": [("Lines", "lines"), ("Postcode",)],
    "labels": [("Line with commas", "commas")],
    "parcels": [("Address line 1",), ("Address line 2",), ("Town",), ("Postcode",), ("Country",)],
    "orders": [
        ("Address line 1", "part", 30), ("Address line 2", "part", 30), ("Town", "part", 25),
        ("Postcode", "part", 10), ("Country code", "part", 2),
    ],
    # The program names them itself.
    "customers": None,
    "weborders": None,
}  # fmt: skip


def set_up(client, eyes, stand_in, pace_ms=2):
    """A target for the stand-in in front, kept and published; and where its first field is."""
    said = FIELDS[stand_in.name]

    def begun():
        made = SetUp(eyes.look(patience=5), Looks((), ()), title=f"Stand-in {stand_in.name}")
        if stand_in.name == "orders":  # of a terminal that shows nothing yet there is no plan
            return made if made.seen.look.texts("terminal") else None
        return made if said or len(made.named_fields()) >= 5 else None

    # A program that has just started may not name its fields yet, or show anything.
    setup = until(begun, "the names of its fields, or what it shows")
    seen = setup.seen
    if said is None:
        named = setup.named_fields()[:5]
        # How many characters fit is told by nobody: a person has seen it.
        widths = [40, 40, None, None, None] if stand_in.name == "customers" else [None] * 5
        setup.fields = [
            replace(field, max_length=width) for field, width in zip(named, widths, strict=True)
        ]
    else:
        setup.fields = [
            SeenField(
                label=label,
                is_named=False,
                is_whole=more[:1] in (["lines"], ["commas"]),
                several_lines=more[:1] == ["lines"],
                max_length=more[1] if more[1:] else None,
            )
            for label, *more in said
        ]
    asking = SettingUp(client)
    proposal = asking.propose(setup)
    proposal.document.addresses[0].writing.pace_ms = pace_ms
    assert asking.keep(proposal.document) == []
    version = asking.publish(setup.key)
    return known_target(proposal.document, version), Place(seen.window, seen.focus)
