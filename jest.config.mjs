export default {
  testEnvironment: "node",
  extensionsToTreatAsEsm: [".ts"],
  testMatch: ["<rootDir>/{core,cli,db,server,app,bench}/**/*.test.ts"],
  transform: {
    "^.+\\.ts$": [
      "@swc/jest",
      { jsc: { target: "es2023", parser: { syntax: "typescript" } }, module: { type: "es6" } },
    ],
  },
  moduleNameMapper: {
    "^@core/(.*)$": "<rootDir>/core/$1",
    "^@db/(.*)$": "<rootDir>/db/$1",
    "^~/(.*)$": "<rootDir>/app/$1",
  },
};
