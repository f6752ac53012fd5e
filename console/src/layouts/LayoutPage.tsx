/** One country's layout: what it asks for on one side, what it writes on the other. */

import { Button, Select, Skeleton } from "antd";
import { useDeferredValue, useState } from "react";
import { Link, useParams } from "react-router";

import { LoadError } from "../parts/LoadError";
import { PageHead } from "../parts/PageHead";
import { ComponentForm } from "./ComponentForm";
import { FactsTag } from "./FactsTag";
import { Precedence } from "./Precedence";
import { WrittenLines } from "./WrittenLines";
import { useForms } from "./own/useOwn";
import { type Components, type Layout, sampleFor, useLayout } from "./layouts";
import { Panel } from "../parts/Panel";

const languageNames = new Intl.DisplayNames(["en"], { type: "language" });

export default function LayoutPage(): React.ReactNode {
  const { country = "" } = useParams();
  const [language, setLanguage] = useState("en");
  const [form, setForm] = useState("");
  const forms = useForms();
  const layout = useLayout(country, language, form);
  if (layout.isError) return <LoadError error={layout.error} again={() => void layout.refetch()} />;
  if (!layout.data) return <Skeleton active />;
  const { name, languages, confidence, source } = layout.data;
  return (
    <>
      <PageHead
        title={`${name} (${layout.data.country_code})`}
        about={
          <>
            Facts: {source}. <PostOf code={layout.data.post_of} />
          </>
        }
      >
        <FactsTag confidence={confidence} />
        <Link to={`/layouts/own/new?country=${layout.data.country_code}`}>
          <Button tabIndex={-1}>Change it</Button>
        </Link>
        <Select
          aria-label="On which form"
          value={form}
          onChange={setForm}
          options={[
            { value: "", label: "Everywhere" },
            ...(forms.data ?? []).map(({ key, title }) => ({ value: key, label: `On ${title}` })),
          ]}
          popupMatchSelectWidth={false}
        />
        <Select
          aria-label="Language of the labels"
          value={language}
          onChange={setLanguage}
          options={[...new Set(["en", ...languages])].map((code) => ({
            value: code,
            label: `Labels in ${languageNames.of(code) ?? code}`,
          }))}
          popupMatchSelectWidth={false}
        />
      </PageHead>
      <Precedence own={layout.data.own} country={name} />
      <Tryout key={layout.data.country_code} layout={layout.data} form={form} />
    </>
  );
}

function PostOf({ code }: { code: string }): React.ReactNode {
  if (!code) return null;
  return (
    <>
      It uses the post of <Link to={`/layouts/${code}`}>{code}</Link>; what it does not say itself is as there.
    </>
  );
}

/** The fields filled with a made-up address, and its lines as they are typed. */
function Tryout({ layout, form }: { layout: Layout; form: string }): React.ReactNode {
  const [components, setComponents] = useState<Components>(() => sampleFor(layout));
  const shown = useDeferredValue(components);
  const given = Object.fromEntries(Object.entries(shown).filter(([, value]) => value.trim()));
  return (
    <div className="side-by-side">
      <Panel title="What is asked for" extra={<span className="hint">with a made-up address</span>}>
        <ComponentForm layout={layout} form={form} components={components} given={given} change={setComponents} />
      </Panel>
      <WrittenLines layout={layout} form={form} components={given} />
    </div>
  );
}
