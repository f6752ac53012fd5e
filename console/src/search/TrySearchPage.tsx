/** A bench for searching: what is found for a text, how it was read, and why in this order. */

import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Alert, Empty, Input, Select } from "antd";
import { useDeferredValue } from "react";
import { useSearchParams } from "react-router";

import { counted } from "../parts/figures";
import { PageHead } from "../parts/PageHead";
import { FoundTable } from "./FoundTable";
import { ReadingTable } from "./ReadingTable";
import { KINDS, type Found, search } from "./search";

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
    setPlace(
      (old) => {
        const next = new URLSearchParams(old);
        if (value) next.set(name, value);
        else next.delete(name);
        return next;
      },
      { replace: true },
    );
  const field = (name: string): Pick<NarrowingProps, "value" | "change"> => ({
    value: place.get(name) ?? "",
    change: (value) => set(name, value),
  });
  const asked = Boolean(place.get("q") || place.get("within"));
  return (
    <>
      <PageHead title="Try a search" about="Type as people would: the trace says how it was read and what each row is worth." />
      <div className="search-bar">
        <Input
          aria-label="Search text"
          placeholder="Street, town, postcode, firm …"
          value={place.get("q") ?? ""}
          onChange={(event) => set("q", event.target.value)}
          allowClear
          autoFocus
          style={{ flex: "2 1 15rem" }}
        />
        <Narrowing label="Countries, as codes with commas" example="Countries: GB,FR" width="9rem" {...field("country")} />
        <Select
          aria-label="Kinds of rows"
          mode="multiple"
          placeholder="All kinds"
          value={(place.get("kinds") ?? "").split(",").filter(Boolean)}
          options={KINDS.map((kind) => ({ value: kind, label: kind }))}
          onChange={(kinds) => set("kinds", kinds.join(","))}
          style={{ flex: "1 1 8rem" }}
        />
        <Narrowing label="Near a point, latitude and longitude" example="Near: 51.53,-2.88" width="10rem" {...field("near")} />
        <Narrowing label="Language of places with several, as a code" example="Language: cy" width="8rem" {...field("language")} />
      </div>
      {place.get("within") && (
        <p>
          Inside the group <code>{place.get("within")}</code>{" "}
          <button type="button" className="link" onClick={() => set("within", "")}>
            Leave it
          </button>
        </p>
      )}
      {found.isError && <Alert type="error" showIcon role="alert" title={found.error.message} />}
      {!asked && <Empty description="Nothing typed yet." />}
      {asked && found.data && !found.isError && (
        <Answer found={found.data} open={(id) => set("within", id)} />
      )}
    </>
  );
}

interface NarrowingProps {
  label: string;
  example: string;
  width: string;
  value: string;
  change: (value: string) => void;
}

/** One way to narrow a search, as text. */
function Narrowing({ label, example, width, value, change }: NarrowingProps): React.ReactNode {
  return (
    <Input
      aria-label={label}
      placeholder={example}
      value={value}
      onChange={(event) => change(event.target.value)}
      style={{ flex: `0 1 ${width}` }}
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
      {found.answer.trace && <ReadingTable trace={found.answer.trace} />}
    </>
  );
}
