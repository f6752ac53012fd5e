"""What is counted of a capture, from the first look at a slot to the address that stands there."""

# Each with what it counts.
COUNTED: dict[str, str] = {
    "shown": "slots that were shown",
    "begun": "of these, in which somebody has typed",
    "picked": "addresses that were picked",
    "partly": "streets, postcodes and the like that were taken as far as they go",
    "by_hand": "addresses that were typed by hand",
    "changed": "of those picked, in which something was changed afterwards",
    "left": "slots that were begun and left without an address",
    "keys": "keys pressed in finders",
    "characters": "characters that fills have written",
}
# Of one page at most; what is more is no person.
MOST_COUNTED = 100_000
