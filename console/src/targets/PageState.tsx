/** How it stands with a page that was opened from here, and what can be done where nothing comes of it. */

import { Alert, Button } from "antd";

import type { PageWindow } from "./pageWindow";

const SILENT = {
  title: "Nothing was heard from the page",
  description:
    "Does it have the line, and does its content policy allow scripts of this service? Was the window blocked? A page that cuts itself off from whoever opens it (Cross-Origin-Opener-Policy) cannot tell: paste its HTML instead.",
};

export function PageState({ page }: { page: PageWindow }): React.ReactNode {
  const { state, problem, instead } = page;
  if (state === "open") {
    return (
      <p>
        {page.fields.length} fields are seen at {page.url}.
      </p>
    );
  }
  if (state === "silent") return <Notice {...SILENT} />;
  if (state === "blocked") return <Notice title="Your browser held the page back" description="Press the button in the small window that was opened, and leave that window open." />;
  if (state === "gone") return <Notice title="The page was closed" description="Open it again to go on. What is chosen here stays." />;
  if (state === "odd") return <Notice title="This page cannot be looked at" description={`${problem} Does it have the line of this service? Its HTML can be pasted instead.`} />;
  if (state !== "elsewhere") return null;
  return (
    <Notice
      title="Another page answers"
      description={
        <>
          <p>{problem}</p>
          {instead && <Button onClick={() => page.open(instead)}>Open {instead} instead</Button>}
        </>
      }
    />
  );
}

function Notice(props: { title: string; description: React.ReactNode }): React.ReactNode {
  return <Alert className="notice" type="warning" showIcon {...props} />;
}
