import type { ThemeConfig } from "antd";

/** Deep teal on paper, brass for what waits: dark enough for text at every use. */
export const theme: ThemeConfig = {
  token: {
    colorPrimary: "#0a6670",
    colorInfo: "#0a6670",
    colorSuccess: "#2b6b2f",
    colorWarning: "#8a5a00",
    colorError: "#a3260f",
    colorTextBase: "#17313b",
    colorTextDescription: "#51666f",
    colorTextPlaceholder: "#5d727b",
    colorTextSecondary: "#46595f",
    colorTextTertiary: "#51666f",
    colorLink: "#0a6670",
    colorBgLayout: "#f3f6f6",
    borderRadius: 6,
    fontSize: 15,
    fontFamily: 'system-ui, "Segoe UI", Roboto, "Noto Sans", "Noto Sans CJK JP", sans-serif',
    motion: false,
  },
  components: {
    Layout: { siderBg: "#103b43", headerBg: "#ffffff" },
    Menu: {
      darkItemBg: "#103b43",
      darkItemSelectedBg: "#0a6670",
      darkItemColor: "#dce8e9",
      darkItemHoverBg: "#175059",
    },
  },
};
