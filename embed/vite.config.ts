import { defineConfig } from "vite";

/** Each script is whole by itself: a page loads one file, and no second one before it can begin. */
const ENTRIES: Record<string, string> = { anchorline: "src/index.ts", attach: "src/attach.ts", inspect: "src/inspect.ts", "opened-page": "src/opened-page.ts" };

export default defineConfig(({ mode }) => {
  const name = mode in ENTRIES ? mode : "anchorline";
  return {
    build: {
      lib: { entry: ENTRIES[name] ?? "", formats: ["es"], fileName: () => `${name}.js` },
      outDir: "../src/anchorline/service/web/embed",
      emptyOutDir: name === "anchorline",
      target: "es2022",
    },
  };
});
