/** How a web form is open to everybody, and guarded against programs. */

import { InputNumber, Select } from "antd";

import type { FormDocument } from "../../../api/schemas";
import { Setting } from "./Setting";
import { SwitchSetting } from "./SwitchSetting";
import { TextSetting } from "./TextSetting";

type Public = NonNullable<FormDocument["public"]>;

const MOST = { least_seconds: 600, most_per_minute: 10_000, addresses_per_month: 100_000_000, addresses_per_day: 100_000_000 } as const;
const SITE = /^https?:\/\/[^/\s,;'"]+$/;

export function PublicSettings(props: {
  document: FormDocument;
  set: (settings: Partial<FormDocument>) => void;
}): React.ReactNode {
  const { document, set } = props;
  const given: Partial<Public> = document.public ?? {};
  const put = (part: Partial<Public>): void => {
    const next = Object.entries({ ...given, ...part }).filter(
      ([, value]) => value !== null && value !== undefined && value !== "" && value !== false && !(Array.isArray(value) && !value.length),
    );
    set({ public: next.length ? (Object.fromEntries(next) as unknown as Public) : null });
  };
  const number = (name: keyof typeof MOST, label: string, hint: string, least: number, usual: number): React.ReactNode => (
    <Setting label={label} hint={hint}>
      {(id) => <InputNumber id={id} className="whole-width" min={least} max={MOST[name]} precision={0} placeholder={String(usual)} value={given[name] ?? null} onChange={(value) => put({ [name]: value })} />}
    </Setting>
  );
  return (
    <details className="more-settings">
      <summary>Open to everybody</summary>
      <SwitchSetting label="Closed" value={Boolean(given.closed)} change={(closed) => put({ closed })} hint="Nobody can fill it; after publishing." />
      {given.closed && <TextSetting label="Said while it is closed" value={given.closed_text} change={(closed_text) => put({ closed_text })} lines most={4000} />}
      <Setting label="Sites that may show its page in a frame" hint="Such as https://www.example.org; none: nobody may.">
        {(id) => (
          <Select id={id} mode="tags" className="whole-width" tokenSeparators={[" ", ","]} value={given.sites ?? []} onChange={(sites: string[]) => put({ sites: sites.map((site) => site.replace(/\/+$/, "")).filter((site) => SITE.test(site)) })} />
        )}
      </Setting>
      {number("least_seconds", "Seconds until it can be sent", "Sooner no person has filled it.", 0, 2)}
      {number("most_per_minute", "Records a minute from one network address", "More are refused for a while.", 1, 30)}
      {number("addresses_per_month", "Addresses its page may fetch in a month", "Whoever opens it. At the end people type by hand; you are told before.", 0, 10_000)}
      {number("addresses_per_day", "… and on a day", "So that nobody can use up the month at once.", 0, 1000)}
      <SwitchSetting label="Without the hidden field that only programs fill" value={Boolean(given.without_trap)} change={(without_trap) => put({ without_trap })} />
    </details>
  );
}
