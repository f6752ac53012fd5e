/** A bench for searching: what is found for a text, how it was read, and why in this order. */

import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Empty, Select, Switch } from "antd";
import { useDeferredValue } from "react";
import { useSearchParams } from "react-router";

import { counted } from "../parts/formatting";
import { PageHead } from "../parts/PageHead";
import { SearchBox, useAddressText, withText } from "../parts/SearchBox";
import { FoundTable } from "./FoundTable";
import { InterpretationTable } from "./InterpretationTable";
import { KINDS, type Found, search } from "./search";
import { ErrorAlert } from "../parts/ErrorAlert";

export default function TrySearchPage(): React.ReactNode {
  const [place, setPlace] = useSearchParams();
  const query = useDeferredValue(place.toString());
  const found = useQuery({
    queryKey: ["search", query],
    queryFn: () => search(new URLSearchParams(query)),
    enabled: Boolean(place.get("q") || place.get("within")),
    placeholderData: keepPreviousData,
    retry: false,
  });
  const set = (name: string, value: string): void =>
    setPlace((old) => withText(old, name, value), { replace: true });
  const [text, setText] = useAddressText("q");
  const isSearched = Boolean(place.get("q") || place.get("within"));
  return (
    <>
      <PageHead title="Try a search" about="Type as people would: the trace says how it was read and what each row is worth." />
      <div className="search-bar">
        <SearchBox
          label="Search text"
          placeholder="Street, town, postcode, firm …"
          text={text}
          change={setText}
          width="1 1 100%"
          autoFocus
        />
        <Narrowing label="Countries, as codes with commas" example="Countries: GB,FR" name="country" />
        <Select
          aria-label="Kinds of rows"
          mode="multiple"
          placeholder="All kinds"
          value={(place.get("kinds") ?? "").split(",").filter(Boolean)}
          options={KINDS.map((kind) => ({ value: kind, label: kind }))}
          onChange={(kinds) => set("kinds", kinds.join(","))}
          className="kinds-choice"
        />
        <Narrowing label="Near a point, latitude and longitude" example="Near: 51.53,-2.88" name="near" />
        <label className="practice-switch">
          <Switch size="small" checked={place.get("practice") === "true"} onChange={(on) => set("practice", on ? "true" : "")} /> Practice addresses
        </label>
        <Narrowing label="Language of places with several, as a code" example="Language: cy" name="language" />
      </div>
      {place.get("within") && (
        <p>
          Inside the group <code>{place.get("within")}</code>{" "}
          <button type="button" className="link" onClick={() => set("within", "")}>
            Leave it
          </button>
        </p>
      )}
      <ErrorAlert error={found.error} />
      {!isSearched && <Empty description="Nothing typed yet." />}
      {isSearched && found.data && !found.isError && (
        <Answer found={found.data} open={(id) => set("within", id)} />
      )}
    </>
  );
}

/** One way to narrow a search, as text. */
function Narrowing(props: { label: string; example: string; name: string }): React.ReactNode {
  const [text, setText] = useAddressText(props.name);
  return (
    <SearchBox
      label={props.label}
      placeholder={props.example}
      text={text}
      change={setText}
      width="1 1 11rem"
    />
  );
}

function Answer({ found, open }: { found: Found; open: (id: string) => void }): React.ReactNode {
  const corrected = Object.entries(found.answer.corrected);
  return (
    <>
      <p role="status">
        {found.answer.suggestions.length
          ? `${counted(found.answer.suggestions.length, "row")}${found.answer.after ? ", and more" : ""}`
          : "Nothing found"}
        {` in ${found.milliseconds.toFixed(0)} ms, there and back; ${found.answer.edition || "no edition"}`}
        {corrected.length > 0 && `. Read ${corrected.map(([typed, read]) => `“${typed}” as “${read}”`).join(", ")}`}
        {found.answer.unmatched.length > 0 && `. Not found: ${found.answer.unmatched.join(", ")}`}
      </p>
      {found.answer.suggestions.length > 0 && <FoundTable answer={found.answer} open={open} />}
      {found.answer.trace && <InterpretationTable trace={found.answer.trace} />}
    </>
  );
}
