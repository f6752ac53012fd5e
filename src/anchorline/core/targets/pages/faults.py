"""Kinds of mistakes in how a page is attached, which the page itself finds and reports."""

FAULTS: dict[str, str] = {
    "attribute": "the script has an attribute that there is not",
    "path": "the page is on none of the target's paths",
    "field_missing": "a field is not found on the page",
    "field_several": "a field is found more than once",
    "selector": "a selector is none",
    "field_locked": "a field is disabled, or can only be read",
    "address_unknown": "a program names an address that the target has not",
    "option_missing": "a list has no option for a text",
    "value_refused": "the page does not keep what is written into a field",
    "twice": "another copy of the script has attached the page already",
    "refused": "the service refuses a call of the page",
}
