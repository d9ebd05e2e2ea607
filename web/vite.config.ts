import { fileURLToPath } from "node:url";
import tailwind from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

const core = fileURLToPath(new URL("../core", import.meta.url));

export default defineConfig({
  plugins: [react(), tailwind()],
  resolve: {
    alias: [{ find: /^@vennet\/core\/(.*)$/, replacement: `${core}/$1.ts` }],
    dedupe: ["prosemirror-model"],
  },
  server: { proxy: { "/api": `http://127.0.0.1:${process.env["PORT"] ?? "4600"}` } },
  build: { chunkSizeWarningLimit: 1500 },
});
