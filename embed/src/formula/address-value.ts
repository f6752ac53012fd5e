/** What formulas know of the address in a slot. */
export interface AddressValue {
  components: Readonly<Record<string, string>>;
  latitude: number | null;
  longitude: number | null;
  line: string;
  lines: readonly string[];
  given: "picked" | "typed" | "";
  /** Of one that was picked: `use`, `languages`, `id`. */
  facts?: Readonly<Record<string, string>>;
}

export const NO_ADDRESS: AddressValue = {
  components: {},
  latitude: null,
  longitude: null,
  line: "",
  lines: [],
  given: "",
};
