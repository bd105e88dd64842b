import { defineConfig } from "vite";

/** The tests of the plain TypeScript parts as one file for Node's own test runner. */
export default defineConfig({
  build: {
    ssr: "src/all.test.ts",
    outDir: "../.stamps/screen-tests",
    emptyOutDir: true,
    minify: false,
    reportCompressedSize: false,
  },
  ssr: { noExternal: true },
  logLevel: "error",
});
