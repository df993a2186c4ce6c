import js from "@eslint/js";
import tseslint from "typescript-eslint";

/** What core/ must not use: the interface, the database, Node, the browser, a clock, or chance. */
const outside = [
  "react*",
  "react-dom*",
  "sequelize",
  "sqlite3",
  "express",
  "node:*",
  "fs",
  "path",
  "@db/*",
  "~/*",
  "../../app/*",
  "../../db/*",
];

export default [
  { ignores: ["build", "node_modules", ".react-router", "data", "test-results", "playwright-report"] },
  js.configs.recommended,
  ...tseslint.configs.strictTypeChecked.map((config) => ({ ...config, files: ["**/*.ts", "**/*.tsx"] })),
  {
    files: ["**/*.ts", "**/*.tsx"],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      "@typescript-eslint/restrict-template-expressions": [
        "error",
        { allowNumber: true, allowBoolean: true },
      ],
      "@typescript-eslint/no-confusing-void-expression": "off",
      "@typescript-eslint/only-throw-error": "off",
      "@typescript-eslint/no-meaningless-void-operator": "off",
      "@typescript-eslint/no-unnecessary-condition": "off",
      "@typescript-eslint/no-unnecessary-type-parameters": "off",
      "@typescript-eslint/no-unnecessary-type-arguments": "off",
      "@typescript-eslint/consistent-type-assertions": ["error", { assertionStyle: "as" }],
    },
  },
  {
    files: ["core/**/*.ts"],
    ignores: ["core/**/*.test.ts", "core/testing/**"],
    rules: {
      "no-restricted-imports": ["error", { patterns: [{ group: outside, message: "core/ stands alone" }] }],
      "no-restricted-globals": ["error", "process", "window", "document", "fetch", "performance", "Date"],
      "no-restricted-properties": [
        "error",
        { object: "Math", property: "random", message: "pass a seeded source in" },
      ],
    },
  },
  {
    // Tests spoil files of unknown shape on purpose.
    files: ["**/*.test.ts"],
    rules: Object.fromEntries(
      [
        "explicit-any",
        "unsafe-member-access",
        "unsafe-assignment",
        "unsafe-return",
        "unsafe-call",
        "unsafe-argument",
      ].map((rule) => [`@typescript-eslint/no-${rule}`, "off"]),
    ),
  },
  {
    // Biome has the same rule, and the one fixture that needs nothing is marked there.
    files: ["e2e/**/*.ts"],
    rules: { "no-empty-pattern": "off" },
  },
  {
    files: ["**/*.mjs"],
    languageOptions: {
      globals: {
        process: "readonly",
        performance: "readonly",
        console: "readonly",
        Buffer: "readonly",
        setInterval: "readonly",
        clearInterval: "readonly",
        // What a script hands to the page it drives runs there.
        window: "readonly",
        PerformanceObserver: "readonly",
        requestAnimationFrame: "readonly",
      },
    },
  },
];
