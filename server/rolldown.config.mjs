import { defineConfig } from "rolldown";

// The server and its worker process, each with all that it loads in few files: thousands of small ones took most of a
// start. What has native code, or reads files that lie beside it, stays where npm put it.

export default defineConfig({
  input: {
    main: "dist/main.js",
    "worker-process": "dist/workers/worker-process.js",
  },
  platform: "node",
  onLog(level, log, handle) {
    // Libraries ask for companions that we have no use for, and do without.
    if (log.code === "UNRESOLVED_IMPORT" && log.id?.includes("node_modules")) return;
    handle(level, log);
  },
  external: [/^@myriaddreamin\//, /^@node-rs\//, /^@resvg\//, /^@jsquash\//, /^pdfjs-dist/],
  output: {
    dir: "bundle",
    cleanDir: true,
    // The mapper and the interface's description go by the names of classes.
    keepNames: true,
  },
});
