"""Checking one half of a submitted form, for tests that look at it alone."""

from anchorline.core.forms import capture, captured, values, work_out


def check_values(form, typed):
    """The values that are kept of what was typed, and the problems, without any address."""
    read, faults = values.read_values(form, typed)
    return values.check_values(form, typed, read, faults, work_out(form, read, {}, 0))


def capture_slots(form, kept, inputs, layouts, find):
    """The addresses that are captured beside some values, and the problems."""
    reference = captured.Reference(layouts, find, 0)
    addresses = capture.slot_addresses(form, kept, inputs, reference)
    worked = work_out(form, kept, addresses, 0)
    return capture.capture_slots(form, kept, inputs, reference, worked)
