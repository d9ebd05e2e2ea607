import { createNodeResolver, importX } from "eslint-plugin-import-x";
import reactHooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

// Who may import whom. A room uses core and nothing else; inside core a folder uses those before it.
const coreOrder = [
  "manuscript",
  "destination",
  "publication",
  "pdf",
  "markdown",
  "import",
  "checks",
  "reach",
  "proof",
  "publish",
  "finished",
];
const everywhere = ["manuscript", "destination"];
const rooms = ["server", "web", "standins", "demo", "e2e", "bench"];

function coreRule(folder) {
  const before = coreOrder.slice(0, coreOrder.indexOf(folder));
  const forbidden = coreOrder.filter(
    (other) => other !== folder && !before.includes(other) && !everywhere.includes(other),
  );
  return {
    files: [`core/${folder}/**/*.ts`],
    ignores: ["**/*.test.ts"],
    rules: {
      "no-restricted-imports": [
        "error",
        {
          patterns: [
            ...(forbidden.length > 0
              ? [
                  {
                    group: forbidden.map((other) => `**/${other}/**`),
                    message: `core/${folder} stands before that folder.`,
                  },
                ]
              : []),
            {
              group: ["node:*", "react*", "@nestjs/*", "undici"],
              message: "core has no interface, no server, no file or network access.",
            },
            { group: ["@vennet/*"], message: "core depends on no other room." },
          ],
        },
      ],
    },
  };
}

function roomRule(room) {
  const others = rooms.filter((other) => other !== room);
  return {
    files: [`${room}/**/*.{ts,tsx,mjs}`],
    rules: {
      "no-restricted-imports": [
        "error",
        {
          patterns: [
            {
              group: others.map((other) => `@vennet/${other}/*`),
              message: "Rooms meet in core and over HTTP only.",
            },
            // A folder of the same name inside a room is its own; only a path out of the room is another room.
            {
              regex: `^(\\.\\./)+(${others.join("|")}|core)/`,
              message: "Use @vennet/core/…; rooms do not reach into each other.",
            },
          ],
        },
      ],
    },
  };
}

export default tseslint.config(
  {
    ignores: [
      "**/dist/**",
      "server/bundle/**",
      "**/node_modules/**",
      ".vennet/**",
      "web/api/schema.d.ts",
      "test-results/**",
      "playwright-report/**",
    ],
  },
  ...tseslint.configs.recommended,
  {
    rules: {
      "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_" }],
      eqeqeq: "error",
      "no-console": "error",
    },
  },
  { files: ["launch/**", "bench/**", "campaign/**", "demo/**"], rules: { "no-console": "off" } },
  { files: ["**/*.test.ts", "**/test/**"], rules: { "@typescript-eslint/no-explicit-any": "off" } },
  {
    files: ["web/**/*.{ts,tsx}"],
    plugins: { "react-hooks": reactHooks },
    rules: { "react-hooks/rules-of-hooks": "error", "react-hooks/exhaustive-deps": "error" },
  },
  ...coreOrder.map(coreRule),
  {
    // The reader has to be right where the writer is wrong, so it takes nothing from it.
    files: ["read-back", "read-page", "read-package", "read-markup", "landings", "audit"].map(
      (name) => `core/publish/formats/*/${name}.ts`,
    ),
    rules: {
      "no-restricted-imports": [
        "error",
        {
          patterns: [
            {
              regex:
                "^(\\./(?!(landings|audit|read-page|read-package|read-markup)\\.ts)|\\.\\./(?!\\.\\./\\.\\./(proof/|pdf/|markdown/|destination/percent-decoded\\.ts)))",
              message:
                "What reads a file back uses core/proof, core/pdf and core/markdown alone, and what decodes addresses.",
            },
          ],
        },
      ],
    },
  },
  {
    files: ["**/*.{ts,tsx}"],
    plugins: { "import-x": importX },
    settings: {
      "import-x/extensions": [".ts", ".tsx"],
      "import-x/parsers": { "@typescript-eslint/parser": [".ts", ".tsx"] },
      "import-x/resolver-next": [createNodeResolver({ extensions: [".ts", ".tsx", ".mjs"] })],
    },
    rules: { "import-x/no-cycle": ["error", { ignoreExternal: true }] },
  },
  roomRule("server"),
  roomRule("web"),
  roomRule("standins"),
  // The server's test services and the end-to-end tests use the launch, as a person would.
);
