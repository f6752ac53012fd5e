/** Words of the design; a test holds these lists against the service's own. */

export const COMPONENTS = [
  "recipient",
  "organisation",
  "place",
  "unit",
  "building",
  "number",
  "street",
  "po_box",
  "district",
  "town",
  "region",
  "region_code",
  "nation",
  "postcode",
  "country",
  "country_code",
];

export const CHANGES: Record<string, string> = {
  upper: "in capitals",
  ascii: "without accents",
  shorten: "shortened to the field",
};
