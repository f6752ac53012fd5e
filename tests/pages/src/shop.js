/** What each page has: its fields, its countries under numbers of its own, and what its code got. */

export const COUNTRIES = [
  { value: "1", text: "Germany" },
  { value: "2", text: "United Kingdom (GB)" },
  { value: "3", text: "Ireland (IE)" },
];
export const EMPTY = { ship_street: "", ship_town: "", ship_postcode: "", ship_country: "", note: "" };

const FIELDS = ["street", "town", "postcode", "country"];
const address = (values) => Object.fromEntries(FIELDS.map((field) => [field, values[`ship_${field}`] ?? ""]));

/** Shows the tests what the page's own code has in its fields now. */
export function hold(values) {
  window.got = address(values);
}

/** What a page sends when somebody submits it. */
export function submit(values) {
  window.submitted = address(values);
}
