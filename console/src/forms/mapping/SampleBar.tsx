/** The address whose results are shown: changed with one key, or one tap. */

import { Button, Select } from "antd";
import { useEffect } from "react";

import type { Sample } from "./useMapping";

const KINDS: Record<string, { title: string; key: string }> = {
  usual: { title: "Usual", key: "u" },
  longest: { title: "Longest", key: "l" },
  most_parts: { title: "Most parts", key: "m" },
  no_number: { title: "No number", key: "n" },
  po_box: { title: "PO box", key: "p" },
};

export function SampleBar(props: { samples: Sample[]; sample: Sample | null; choose: (sample: Sample) => void }): React.ReactNode {
  const { samples, sample, choose } = props;
  const countries = [...new Set(samples.map((one) => one.country_code))];
  const here = samples.filter((one) => one.country_code === sample?.country_code);
  const ofCountry = (code: string): void => {
    const there = samples.filter((one) => one.country_code === code);
    const next = there.find((one) => one.which === sample?.which) ?? there[0];
    if (next) choose(next);
  };
  const nextCountry = (): void => ofCountry(countries[(countries.indexOf(sample?.country_code ?? "") + 1) % countries.length] ?? "");
  useEffect(() => {
    const pressed = (event: KeyboardEvent): void => {
      const inside = event.target as HTMLElement | null;
      if (event.ctrlKey || event.metaKey || event.altKey || inside?.closest("input, textarea, select, [contenteditable], .ant-select, .ant-modal")) return;
      if (event.key === "c") nextCountry();
      const found = here.find((one) => KINDS[one.which]?.key === event.key);
      if (found) choose(found);
    };
    window.addEventListener("keydown", pressed);
    return () => window.removeEventListener("keydown", pressed);
  });
  if (!samples.length) {
    return <p className="hint">There is no reference data for the countries of this address: results are shown once there is.</p>;
  }
  return (
    <div className="sample-bar" role="group" aria-label="The address whose results are shown">
      <Select
        aria-label="Country of the sample"
        value={sample?.country_code ?? null}
        options={countries.map((value) => ({ value, label: value }))}
        onChange={(code: string | null) => code && ofCountry(code)}
      />
      <Button size="small" onClick={nextCountry} title="Key: c">
        Next country
      </Button>
      {here.map((one) => (
        <Button
          key={one.which}
          size="small"
          type={one.id === sample?.id ? "primary" : "default"}
          aria-pressed={one.id === sample?.id}
          title={`Key: ${KINDS[one.which]?.key ?? ""}`}
          onClick={() => choose(one)}
        >
          {KINDS[one.which]?.title ?? one.which}
        </Button>
      ))}
      <span className="sample-label" role="status">
        {sample?.label}
      </span>
    </div>
  );
}
