import { Spin } from "antd";
import { Suspense, lazy } from "react";
import { createBrowserRouter } from "react-router";

import { Frame } from "./Frame";
import { Lost } from "./Lost";

const Home = lazy(() => import("../home/HomePage"));
const FormList = lazy(() => import("../forms/FormListPage"));
const FormPage = lazy(() => import("../forms/FormPage"));
const RecordList = lazy(() => import("../records/RecordListPage"));
const RecordPage = lazy(() => import("../records/RecordPage"));

function page(Page: React.ComponentType): React.ReactNode {
  return (
    <Suspense fallback={<Spin description="Loading …" />}>
      <Page />
    </Suspense>
  );
}

export const router = createBrowserRouter(
  [
    {
      path: "/",
      element: <Frame />,
      children: [
        { index: true, element: page(Home) },
        { path: "forms", element: page(FormList) },
        { path: "forms/:form", element: page(FormPage) },
        { path: "records", element: page(RecordList) },
        { path: "records/:record", element: page(RecordPage) },
        { path: "*", element: <Lost /> },
      ],
    },
  ],
  { basename: "/console" },
);
