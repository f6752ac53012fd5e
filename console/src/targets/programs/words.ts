/** The words of program targets for people. */

export const KINDS: { value: string; label: string }[] = [
  { value: "program", label: "the program" },
  { value: "title", label: "the title of the window" },
  { value: "dialog", label: "whether it is a dialog" },
  { value: "tab", label: "the open tab" },
  { value: "window_class", label: "the class of the window" },
  { value: "part_title", label: "the title of the part with the focus" },
  { value: "text", label: "a text on the screen" },
  { value: "terminal", label: "a line in the terminal" },
  { value: "field", label: "the field with the focus" },
  { value: "running", label: "another program that runs" },
];
export const TESTS: { value: string; label: string }[] = [
  { value: "is", label: "is" },
  { value: "begins", label: "begins with" },
  { value: "ends", label: "ends with" },
  { value: "contains", label: "contains" },
  { value: "lacks", label: "lacks" },
];
export const WAYS: { value: string; label: string }[] = [
  { value: "keys", label: "typed key by key" },
  { value: "paste", label: "pasted from the clipboard" },
  { value: "accessible", label: "set through the accessible interface" },
  { value: "found", label: "as found best, tried on a practice address" },
];
export const CHECKS: { value: string; label: string }[] = [
  { value: "field", label: "each field is read before it is left" },
  { value: "screen", label: "the screen is read at the end" },
  { value: "no", label: "nothing is read" },
];
export const OUTCOMES: Record<string, { label: string; colour: string }> = {
  verified: { label: "Written and verified", colour: "green" },
  unverified: { label: "Written, not verified", colour: "blue" },
  differs: { label: "Differs", colour: "orange" },
  stopped: { label: "Stopped", colour: "red" },
};
export const FIELD_STATES: Record<string, string> = {
  verified: "written and verified",
  written: "written, not verified",
  shown: "on the screen; its field is not known",
  differs: "stands there differently",
  partly: "written in part",
  missing: "not written",
  no_field: "has no field here",
  empty: "the address has none",
};

/** The words for a value of one of the lists above. */
export const wordFor = (list: { value: string; label: string }[], value: string): string => list.find((one) => one.value === value)?.label ?? value;
