import { Spin } from "antd";
import { Suspense, lazy } from "react";
import { createBrowserRouter } from "react-router";

import { Frame } from "./Frame";
import { Lost } from "./Lost";

const Home = lazy(() => import("../home/HomePage"));
const FormList = lazy(() => import("../forms/FormListPage"));
const FormPage = lazy(() => import("../forms/FormPage"));
const DatasetList = lazy(() => import("../data/DatasetListPage"));
const DatasetPage = lazy(() => import("../data/DatasetPage"));
const EditionPage = lazy(() => import("../data/EditionPage"));
const LayoutList = lazy(() => import("../layouts/LayoutListPage"));
const LayoutPage = lazy(() => import("../layouts/LayoutPage"));
const TrySearch = lazy(() => import("../search/TrySearchPage"));
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
        { path: "data", element: page(DatasetList) },
        { path: "data/:dataset", element: page(DatasetPage) },
        { path: "data/:dataset/:edition", element: page(EditionPage) },
        { path: "layouts", element: page(LayoutList) },
        { path: "layouts/:country", element: page(LayoutPage) },
        { path: "search", element: page(TrySearch) },
        { path: "*", element: <Lost /> },
      ],
    },
  ],
  { basename: "/console" },
);
