/** What is called, how many addresses are fetched, and how well capture goes. */

import { Tabs } from "antd";
import { useSearchParams } from "react-router";

import { PageHead } from "../parts/PageHead";
import { CallsView } from "./CallsView";
import { QualityView } from "./QualityView";
import { UsageView } from "./UsageView";
import "./activity.css";

export default function ActivityPage(): React.ReactNode {
  const [place, setPlace] = useSearchParams();
  return (
    <>
      <PageHead title="Activity" about="How capture goes, how many addresses were fetched, and each call of the last days." />
      <Tabs
        activeKey={place.get("view") ?? "quality"}
        onChange={(view) => setPlace({ view })}
        destroyOnHidden
        items={[
          { key: "quality", label: "How capture goes", children: <QualityView /> },
          { key: "usage", label: "Addresses fetched", children: <UsageView /> },
          { key: "calls", label: "Calls", children: <CallsView /> },
        ]}
      />
    </>
  );
}
