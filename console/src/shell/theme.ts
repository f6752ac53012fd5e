import type { ThemeConfig } from "antd";

/** Deep teal on paper, brass for what waits: dark enough for text at every use. */
export const theme: ThemeConfig = {
  token: {
    colorPrimary: "#0a6670",
    colorInfo: "#0a6670",
    colorSuccess: "#2b6b2f",
    colorSuccessBg: "#e9f4e9",
    colorSuccessBorder: "#b5d6b7",
    colorWarning: "#8a5a00",
    colorWarningBg: "#fdf4de",
    colorWarningBorder: "#e6cd92",
    colorError: "#a3260f",
    colorErrorBg: "#fcefeb",
    colorErrorBorder: "#e6b3a6",
    colorInfoBg: "#e8f2f3",
    colorInfoBorder: "#aed0d3",
    colorTextBase: "#17313b",
    colorTextDescription: "#51666f",
    colorTextPlaceholder: "#5d727b",
    colorTextSecondary: "#46595f",
    colorTextTertiary: "#51666f",
    colorLink: "#0a6670",
    colorLinkHover: "#084d55",
    colorLinkActive: "#084d55",
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
