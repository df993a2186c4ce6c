export default {
  // A slow machine is no failure: a test that hangs still ends.
  testTimeout: 600_000,
  testEnvironment: "node",
  globalSetup: "<rootDir>/scripts/unit-setup.mjs",
  globalTeardown: "<rootDir>/scripts/unit-teardown.mjs",
  extensionsToTreatAsEsm: [".ts", ".tsx"],
  testMatch: ["<rootDir>/{core,words,cli,db,server,app,benchmarks}/**/*.test.ts"],
  transform: {
    "^.+\\.tsx?$": [
      "@swc/jest",
      {
        jsc: {
          target: "es2023",
          parser: { syntax: "typescript", tsx: true },
          transform: { react: { runtime: "automatic" } },
        },
        module: { type: "es6" },
      },
    ],
  },
  moduleNameMapper: {
    "^@core/(.*)$": "<rootDir>/core/$1",
    "^@db/(.*)$": "<rootDir>/db/$1",
    "^@words/(.*)$": "<rootDir>/words/$1",
    "^~/(.*)$": "<rootDir>/app/$1",
  },
};
