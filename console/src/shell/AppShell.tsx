/** What is around every page: who is signed in, where one can go. */

import {
  AppstoreOutlined,
  BarChartOutlined,
  DatabaseOutlined,
  FileTextOutlined,
  HomeOutlined,
  KeyOutlined,
  LinkOutlined,
  MenuOutlined,
  ProfileOutlined,
  SearchOutlined,
} from "@ant-design/icons";
import { Button, Drawer, Grid, Layout, Menu, Spin } from "antd";
import { useEffect, useRef, useState } from "react";
import { Link, Outlet, useLocation } from "react-router";

import { LoadError } from "../parts/LoadError";
import { UnsavedGuard, useLeaving } from "../parts/useUnsaved";
import { PageBoundary } from "./PageBoundary";
import { SignIn, SignInAgain } from "./SignIn";
import { useHasLeft, useSession, useSignOut } from "./session";
import { useFocusKeeper } from "./useFocusKeeper";

const PLACES = [
  { key: "", icon: <HomeOutlined aria-hidden />, label: "Overview" },
  { key: "forms", icon: <AppstoreOutlined aria-hidden />, label: "Forms" },
  { key: "records", icon: <FileTextOutlined aria-hidden />, label: "Records" },
  { key: "layouts", icon: <ProfileOutlined aria-hidden />, label: "Country layouts" },
  { key: "data", icon: <DatabaseOutlined aria-hidden />, label: "Reference data" },
  { key: "search", icon: <SearchOutlined aria-hidden />, label: "Try a search" },
  { key: "targets", icon: <LinkOutlined aria-hidden />, label: "Targets" },
  { key: "activity", icon: <BarChartOutlined aria-hidden />, label: "Activity" },
  { key: "keys", icon: <KeyOutlined aria-hidden />, label: "Keys" },
];

export function AppShell(): React.ReactNode {
  const session = useSession();
  // Whoever has just signed in goes on at the page; whoever opens it begins at its very top.
  const [signedInHere, setSignedInHere] = useState(false);
  const isOut = session.data === null;
  const hasLeft = useHasLeft();
  const wasIn = useRef("");
  if (hasLeft) wasIn.current = "";
  useEffect(() => {
    if (isOut) setSignedInHere(true);
  }, [isOut]);
  if (session.isPending) {
    return (
      <div className="sign-in">
        <Spin size="large" description="Loading …" />
      </div>
    );
  }
  if (session.isError) {
    return (
      <div className="sign-in">
        <LoadError error={session.error} again={() => void session.refetch()} />
      </div>
    );
  }
  // Where a session has only expired, the page stays, with everything that was typed into it.
  if (!session.data && (hasLeft || !wasIn.current)) return <SignIn />;
  if (session.data) wasIn.current = session.data.name;
  return (
    <UnsavedGuard>
      <SignedIn name={wasIn.current} focusFirst={signedInHere} />
      {!session.data && <SignInAgain />}
    </UnsavedGuard>
  );
}

function SignedIn(props: { name: string; focusFirst: boolean }): React.ReactNode {
  const { name, focusFirst } = props;
  const opened = useRef<string | null>(focusFirst ? "" : null);
  const signOut = useSignOut();
  const leaving = useLeaving();
  const path = useLocation().pathname;
  const here = path.split("/")[1] ?? "";
  const title = PLACES.find((place) => place.key === here)?.label;
  const wide = Grid.useBreakpoint().lg ?? true;
  // A form is designed at the width that people will meet it in: the menu makes room for it.
  const isNarrow = here === "forms" && !["", "new"].includes(path.split("/")[2] ?? "");
  const [open, setOpen] = useState(false);
  useFocusKeeper();
  useEffect(() => {
    document.title = title ? `${title} · Anchorline` : "Anchorline";
  }, [title]);
  useEffect(() => {
    // Another page begins at its top, for the keyboard as for the eye; a box in it may ask for more.
    setOpen(false);
    const first = opened.current === null;
    opened.current = path;
    const main = document.getElementById("main");
    if (!first && main && !main.contains(document.activeElement)) main.focus({ preventScroll: true });
  }, [path]);
  return (
    <Layout className="shell">
      <a className="skip" href="#main">
        Skip to the page
      </a>
      {wide && (
        <Layout.Sider width={200} collapsedWidth={56} collapsed={isNarrow} className="side">
          <Brand short={isNarrow} />
          <Places here={here} />
        </Layout.Sider>
      )}
      <Layout className="page">
        <Layout.Header className="top">
          {!wide && (
            <Button
              type="text"
              aria-label="Menu"
              aria-expanded={open}
              icon={<MenuOutlined aria-hidden />}
              onClick={() => setOpen(true)}
            />
          )}
          <span className="who">{name}</span>
          <Button onClick={() => leaving(() => signOut.mutate())}>Sign out</Button>
        </Layout.Header>
        <Layout.Content id="main" tabIndex={-1}>
          <PageBoundary at={path}>
            <Outlet />
          </PageBoundary>
        </Layout.Content>
      </Layout>
      <Drawer
        className="menu-drawer"
        title="Menu"
        placement="left"
        size={260}
        open={open && !wide}
        onClose={() => setOpen(false)}
        destroyOnHidden
      >
        <Places here={here} theme="light" chosen={() => setOpen(false)} />
      </Drawer>
    </Layout>
  );
}

function Brand({ short }: { short: boolean }): React.ReactNode {
  return (
    <div className={short ? "brand short" : "brand"}>
      <img src="/favicon.svg" alt={short ? "Anchorline" : ""} />
      {short ? null : "Anchorline"}
    </div>
  );
}

function Places(props: {
  here: string;
  theme?: "light" | "dark";
  chosen?: () => void;
}): React.ReactNode {
  const { here, theme = "dark", chosen } = props;
  return (
    <nav aria-label="Main">
      <Menu
        theme={theme}
        mode="inline"
        inlineIndent={12}
        selectedKeys={[here]}
        onClick={() => chosen?.()}
        items={PLACES.map((place) => ({
          key: place.key,
          icon: place.icon,
          label: <Link to={`/${place.key}`}>{place.label}</Link>,
        }))}
      />
    </nav>
  );
}
