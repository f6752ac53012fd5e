/** One country's layout: what it asks for on one side, what it writes on the other. */

import { Card, Select, Skeleton } from "antd";
import { useDeferredValue, useState } from "react";
import { Link, useParams } from "react-router";

import { Failure } from "../parts/Failure";
import { PageHead } from "../parts/PageHead";
import { AskedForm } from "./AskedForm";
import { FactsTag } from "./FactsTag";
import { WrittenLines } from "./WrittenLines";
import { type Components, type Layout, sampleFor, useLayout } from "./layouts";

const languageNames = new Intl.DisplayNames(["en"], { type: "language" });

export default function LayoutPage(): React.ReactNode {
  const { country = "" } = useParams();
  const [language, setLanguage] = useState("en");
  const layout = useLayout(country, language);
  if (layout.isError) return <Failure error={layout.error} again={() => void layout.refetch()} />;
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
      <Tryout key={layout.data.country_code} layout={layout.data} />
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
function Tryout({ layout }: { layout: Layout }): React.ReactNode {
  const [components, setComponents] = useState<Components>(() => sampleFor(layout));
  const shown = useDeferredValue(components);
  const given = Object.fromEntries(Object.entries(shown).filter(([, value]) => value.trim()));
  return (
    <div className="side-by-side">
      <Card size="small" title="What is asked for" extra={<span className="hint">with a made-up address</span>}>
        <AskedForm layout={layout} components={components} given={given} change={setComponents} />
      </Card>
      <WrittenLines layout={layout} components={given} />
    </div>
  );
}
