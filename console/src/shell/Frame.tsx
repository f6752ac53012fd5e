/** The frame around every page: who is signed in, where one can go. */

import {
  AppstoreOutlined,
  DatabaseOutlined,
  FileTextOutlined,
  HomeOutlined,
  ProfileOutlined,
  SearchOutlined,
} from "@ant-design/icons";
import { Button, Layout, Menu, Spin } from "antd";
import { useEffect } from "react";
import { Link, Outlet, useLocation } from "react-router";

import { Failure } from "../parts/Failure";
import { SignIn } from "./SignIn";
import { useSession, useSignOut } from "./session";

const PLACES = [
  { key: "", icon: <HomeOutlined aria-hidden />, label: "Where things stand" },
  { key: "forms", icon: <AppstoreOutlined aria-hidden />, label: "Forms" },
  { key: "records", icon: <FileTextOutlined aria-hidden />, label: "Records" },
  { key: "layouts", icon: <ProfileOutlined aria-hidden />, label: "Country layouts" },
  { key: "data", icon: <DatabaseOutlined aria-hidden />, label: "Reference data" },
  { key: "search", icon: <SearchOutlined aria-hidden />, label: "Try a search" },
];

export function Frame(): React.ReactNode {
  const session = useSession();
  const signOut = useSignOut();
  const here = useLocation().pathname.split("/")[1] ?? "";
  const title = PLACES.find((place) => place.key === here)?.label;
  useEffect(() => {
    document.title = title ? `${title} · Anchorline` : "Anchorline";
  }, [title]);

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
        <Failure error={session.error} again={() => void session.refetch()} />
      </div>
    );
  }
  if (!session.data) return <SignIn />;
  return (
    <Layout style={{ minHeight: "100vh" }}>
      <a className="skip" href="#main">
        Skip to the page
      </a>
      <Layout.Sider width={200} style={{ position: "sticky", top: 0, height: "100vh", alignSelf: "start" }} breakpoint="lg" collapsedWidth={0}>
        <div className="brand">
          <img src="/favicon.svg" alt="" />
          Anchorline
        </div>
        <nav aria-label="Main">
          <Menu
            theme="dark"
            mode="inline"
            inlineIndent={12}
            selectedKeys={[here]}
            items={PLACES.map((place) => ({
              key: place.key,
              icon: place.icon,
              label: <Link to={`/${place.key}`}>{place.label}</Link>,
            }))}
          />
        </nav>
      </Layout.Sider>
      <Layout>
        <Layout.Header style={{ display: "flex", justifyContent: "flex-end", gap: 16, paddingInline: 24 }}>
          <span>{session.data.name}</span>
          <Button onClick={() => signOut.mutate()} style={{ alignSelf: "center" }}>
            Sign out
          </Button>
        </Layout.Header>
        <Layout.Content id="main" tabIndex={-1} style={{ padding: 24, outline: "none" }}>
          <Outlet />
        </Layout.Content>
      </Layout>
    </Layout>
  );
}
