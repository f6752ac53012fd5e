import { createBrowserRouter } from "react-router";

import { FORMS } from "../forms/kind";
import { opening } from "../parts/documents/opening";
import { AppShell } from "./AppShell";
import { NotFoundPage } from "./NotFoundPage";
import { type LoadedPage, pageLoaded } from "./pageLoaded";
import { queries } from "./queries";

const Home = pageLoaded(() => import("../home/HomePage"));
const FormList = pageLoaded(() => import("../forms/FormListPage"));
const BeginForm = pageLoaded(() => import("../forms/begin/BeginPage"));
const DesignForm = pageLoaded(() => import("../forms/design/DesignPage"));
const DatasetList = pageLoaded(() => import("../data/DatasetListPage"));
const DatasetPage = pageLoaded(() => import("../data/DatasetPage"));
const EditionPage = pageLoaded(() => import("../data/EditionPage"));
const LayoutList = pageLoaded(() => import("../layouts/LayoutListPage"));
const LayoutPage = pageLoaded(() => import("../layouts/LayoutPage"));
const OwnList = pageLoaded(() => import("../layouts/own/OwnListPage"));
const NewOwn = pageLoaded(() => import("../layouts/own/NewOwnPage"));
const OwnLayout = pageLoaded(() => import("../layouts/own/OwnLayoutPage"));
const KeyList = pageLoaded(() => import("../keys/KeyListPage"));
const TargetList = pageLoaded(() => import("../targets/TargetListPage"));
const NewTarget = pageLoaded(() => import("../targets/NewTargetPage"));
const NewProgram = pageLoaded(() => import("../targets/programs/NewProgramPage"));
const TargetPage = pageLoaded(() => import("../targets/TargetPage"));
const ActivityPage = pageLoaded(() => import("../activity/ActivityPage"));
const TrySearch = pageLoaded(() => import("../search/TrySearchPage"));
const RecordList = pageLoaded(() => import("../records/RecordListPage"));
const FillRecord = pageLoaded(() => import("../records/FillPage"));
const RecordPage = pageLoaded(() => import("../records/RecordPage"));

function page({ Page }: LoadedPage): React.ReactNode {
  return <Page />;
}

/** Asks for a form, and for its page, while it is still being found out who is there. */
function beginOpening({ params }: { params: { form?: string } }): null {
  DesignForm.begin();
  void queries.prefetchQuery(opening(FORMS, params.form ?? ""));
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
        { path: "records/new/:form", element: page(FillRecord) },
        { path: "records/:record/edit", element: page(FillRecord) },
        { path: "records/:record", element: page(RecordPage) },
        { path: "data", element: page(DatasetList) },
        { path: "data/:dataset", element: page(DatasetPage) },
        { path: "data/:dataset/:edition", element: page(EditionPage) },
        { path: "layouts", element: page(LayoutList) },
        { path: "layouts/own", element: page(OwnList) },
        { path: "layouts/own/new", element: page(NewOwn) },
        { path: "layouts/own/:layout", element: page(OwnLayout) },
        { path: "layouts/:country", element: page(LayoutPage) },
        { path: "targets", element: page(TargetList) },
        { path: "targets/new", element: page(NewTarget) },
        { path: "targets/new-program", element: page(NewProgram) },
        { path: "targets/:target", element: page(TargetPage) },
        { path: "activity", element: page(ActivityPage) },
        { path: "keys", element: page(KeyList) },
        { path: "search", element: page(TrySearch) },
        { path: "*", element: <NotFoundPage /> },
      ],
    },
  ],
  { basename: "/console" },
);
