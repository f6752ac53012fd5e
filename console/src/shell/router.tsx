import { Spin } from "antd";
import { Suspense, lazy } from "react";
import { createBrowserRouter } from "react-router";

import { opening } from "../forms/design/opening";
import { AppShell } from "./AppShell";
import { NotFoundPage } from "./NotFoundPage";
import { queries } from "./queries";

const Home = lazy(() => import("../home/HomePage"));
const FormList = lazy(() => import("../forms/FormListPage"));
const BeginForm = lazy(() => import("../forms/begin/BeginPage"));
const DesignForm = lazy(() => import("../forms/design/DesignPage"));
const DatasetList = lazy(() => import("../data/DatasetListPage"));
const DatasetPage = lazy(() => import("../data/DatasetPage"));
const EditionPage = lazy(() => import("../data/EditionPage"));
const LayoutList = lazy(() => import("../layouts/LayoutListPage"));
const LayoutPage = lazy(() => import("../layouts/LayoutPage"));
const OwnList = lazy(() => import("../layouts/own/OwnListPage"));
const NewOwn = lazy(() => import("../layouts/own/NewOwnPage"));
const OwnLayout = lazy(() => import("../layouts/own/OwnLayoutPage"));
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

/** Asks for a form while its page is still being loaded. */
function beginOpening({ params }: { params: { form?: string } }): null {
  void queries.prefetchQuery(opening(params.form ?? ""));
  return null;
}

export const router = createBrowserRouter(
  [
    {
      path: "/",
      element: <AppShell />,
      children: [
        { index: true, element: page(Home) },
        { path: "forms", element: page(FormList) },
        { path: "forms/new", element: page(BeginForm) },
        { path: "forms/:form", element: page(DesignForm), loader: beginOpening },
        { path: "records", element: page(RecordList) },
        { path: "records/:record", element: page(RecordPage) },
        { path: "data", element: page(DatasetList) },
        { path: "data/:dataset", element: page(DatasetPage) },
        { path: "data/:dataset/:edition", element: page(EditionPage) },
        { path: "layouts", element: page(LayoutList) },
        { path: "layouts/own", element: page(OwnList) },
        { path: "layouts/own/new", element: page(NewOwn) },
        { path: "layouts/own/:layout", element: page(OwnLayout) },
        { path: "layouts/:country", element: page(LayoutPage) },
        { path: "search", element: page(TrySearch) },
        { path: "*", element: <NotFoundPage /> },
      ],
    },
  ],
  { basename: "/console" },
);
