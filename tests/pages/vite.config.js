import { svelte } from "@sveltejs/vite-plugin-svelte";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

const PAGES = ["react", "vue", "svelte", "angular", "lit", "antd", "jquery", "example-react", "example-vue", "example-angular"];

/** Each page is whole by itself, as a shop that knows nothing of the others would build it. */
export default defineConfig({
  base: "./",
  plugins: [react(), svelte()],
  resolve: { alias: { vue: "vue/dist/vue.esm-bundler.js" } },
  define: { __VUE_OPTIONS_API__: "true", __VUE_PROD_DEVTOOLS__: "false", __VUE_PROD_HYDRATION_MISMATCH_DETAILS__: "false" },
  build: {
    outDir: "../../build/test-pages",
    emptyOutDir: true,
    chunkSizeWarningLimit: 4000,
    rolldownOptions: { input: PAGES.map((page) => `${page}.html`) },
  },
});
