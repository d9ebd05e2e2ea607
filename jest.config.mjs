const shared = {
  testEnvironment: "node",
  extensionsToTreatAsEsm: [".ts"],
  transform: {
    "\\.ts$": [
      "@swc/jest",
      {
        jsc: {
          target: "es2022",
          parser: { syntax: "typescript", decorators: true },
          transform: { legacyDecorator: true, decoratorMetadata: true },
        },
        module: { type: "es6" },
      },
    ],
  },
  moduleNameMapper: { "^@vennet/core/(.*)$": "<rootDir>/core/$1.ts" },
};

export default {
  // What a suite has loaded is not let go of by the next ones of its worker.
  workerIdleMemoryLimit: "2GB",
  projects: [
    { ...shared, displayName: "core", testMatch: ["<rootDir>/core/**/*.test.ts"] },
    { ...shared, displayName: "web", testMatch: ["<rootDir>/web/**/*.test.ts"] },
    { ...shared, displayName: "launch", testMatch: ["<rootDir>/launch/**/*.test.ts"] },
    {
      ...shared,
      displayName: "server",
      testMatch: ["<rootDir>/server/**/*.test.ts"],
      globalSetup: "<rootDir>/server/test/start-services.mjs",
      setupFiles: ["<rootDir>/server/test/own-services.mjs"],
      globalTeardown: "<rootDir>/server/test/end-services.mjs",
    },
  ],
};
