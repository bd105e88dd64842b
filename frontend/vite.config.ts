import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

const gate = `http://127.0.0.1:${process.env.GENTLEGATE_PORT ?? 8770}`;

export default defineConfig({
  plugins: [react()],
  build: {
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 600,
    rollupOptions: { input: ["index.html", "stage.html"] },
  },
  css: { preprocessorOptions: { scss: { quietDeps: true, silenceDeprecations: ["import", "if-function"] } } },
  server: { proxy: { "/api": { target: gate, ws: true } } },
});
