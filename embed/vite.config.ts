import { defineConfig } from "vite";

export default defineConfig({
  build: {
    lib: { entry: "src/index.ts", formats: ["es"], fileName: () => "anchorline.js" },
    outDir: "../src/anchorline/service/web/embed",
    emptyOutDir: true,
    target: "es2022",
  },
});
