export default {
  // A slow machine is not a failure; a test that hangs still ends.
  testTimeout: 600_000,
  testEnvironment: "node",
  // Both cores of a small machine; Jest's default would leave one of two idle.
  maxWorkers: "100%",
  globalSetup: "<rootDir>/scripts/unit-setup.mjs",
  globalTeardown: "<rootDir>/scripts/unit-teardown.mjs",
  extensionsToTreatAsEsm: [".ts", ".tsx"],
  testMatch: ["<rootDir>/{core,words,cli,db,server,app,benchmarks}/**/*.test.ts"],
  transform: { "^.+\\.tsx?$": "<rootDir>/scripts/jest-transform.mjs" },
  moduleNameMapper: {
    "^@core/(.*)$": "<rootDir>/core/$1",
    "^@db/(.*)$": "<rootDir>/db/$1",
    "^@words/(.*)$": "<rootDir>/words/$1",
    "^~/(.*)$": "<rootDir>/app/$1",
  },
};
