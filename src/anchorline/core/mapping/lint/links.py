"""Links to records of other forms: the form, its fields, and the field that holds the link."""

from collections.abc import Iterator

from ...errors import nearest_names, unknown_name_detail
from ..sources import Link
from .kind import Case, Finding, check


@check("links")
def links(case: Case) -> Iterator[Finding]:
    """A rule for a link names a form and fields that there are, and writes into a link to it."""
    for rule in case.rules:
        link = rule.source
        if not isinstance(link, Link):
            continue
        receiver, place = case.receivers[rule.into[0]], case.place(rule)
        if receiver.type != "link":
            detail = (
                f"{case.named(receiver.key)} is no link: a record can be linked from a field of "
                "the type link. Choose one, or add one."
            )
            yield Finding("links", f"{place}/into", "problem", detail)
        elif receiver.form != link.form:
            detail = (
                f"{case.named(receiver.key)} links to the form {receiver.form!r}, this rule to "
                f"{link.form!r}. Name the same form in both."
            )
            yield Finding(
                "links", f"{place}/link/form", "problem", detail, offers=(str(receiver.form),)
            )
        if link.form not in case.forms:
            offers = tuple(nearest_names(link.form, case.forms))
            detail = unknown_name_detail("published form", link.form, offers[:1])
            yield Finding("links", f"{place}/link/form", "problem", detail, offers=offers)
            continue
        fields = case.forms[link.form]
        for name, rules in (("find", link.find), ("more", link.more)):
            for inner in rules:
                for key in inner.into:
                    if key not in fields:
                        offers = tuple(nearest_names(key, fields))
                        what = f"field of the form {link.form!r} called"
                        detail = unknown_name_detail(what, key, offers[:1])
                        pointer = f"{place}/link/{name}/{inner.at}/into"
                        yield Finding("links", pointer, "problem", detail, offers=offers)
