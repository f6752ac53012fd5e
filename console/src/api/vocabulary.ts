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

export const FACTS: Record<string, string> = {
  latitude: "Latitude",
  longitude: "Longitude",
  use: "Use",
  languages: "Languages",
  id: "Id of the address",
  line: "Whole address in one line",
  lines: "Whole address in its lines",
};
