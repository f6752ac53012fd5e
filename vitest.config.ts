import { defineConfig } from "vitest/config";

export default defineConfig({
  test: { include: ["embed/test/**/*.test.ts", "console/src/**/*.test.ts"] },
});
