import { QueryClientProvider } from "@tanstack/react-query";
import { App as Messages, ConfigProvider } from "antd";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { RouterProvider } from "react-router";

import { queries } from "./shell/queries";
import { router } from "./shell/router";
import { theme } from "./shell/theme";
import "./shell/base.css";

// The custom elements are those that everybody's pages load: the preview is the real thing.
const embed = document.createElement("script");
embed.type = "module";
embed.src = "/embed/anchorline.js";
document.head.append(embed);

const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <ConfigProvider theme={theme} wave={{ disabled: true }}>
        {/* Around the messages: what a dialog shows asks the service as well. */}
        <QueryClientProvider client={queries}>
          <Messages>
            <RouterProvider router={router} />
          </Messages>
        </QueryClientProvider>
      </ConfigProvider>
    </StrictMode>,
  );
}
