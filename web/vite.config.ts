import { readdirSync, readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import tailwind from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig, type Plugin } from "vite";

const core = fileURLToPath(new URL("../core", import.meta.url));

/** What pdf.js fetches when a page wants it: maps of letters, fonts that files leave out, decoders of pictures. */
function filesOfPdfJs(): Plugin {
  const folder = dirname(createRequire(import.meta.url).resolve("pdfjs-dist/package.json"));
  return {
    name: "files-of-pdfjs",
    apply: "build",
    generateBundle() {
      for (const part of ["cmaps", "standard_fonts", "wasm", "iccs"])
        for (const name of readdirSync(join(folder, part)))
          this.emitFile({
            type: "asset",
            fileName: `pdfjs/${part}/${name}`,
            source: readFileSync(join(folder, part, name)),
          });
    },
  };
}

export default defineConfig({
  plugins: [react(), tailwind(), filesOfPdfJs()],
  resolve: {
    alias: [{ find: /^@vennet\/core\/(.*)$/, replacement: `${core}/$1.ts` }],
    dedupe: ["prosemirror-model"],
  },
  server: { proxy: { "/api": `http://127.0.0.1:${process.env["PORT"] ?? "4600"}` } },
  build: { chunkSizeWarningLimit: 1500 },
});
