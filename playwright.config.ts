import { defineConfig, devices } from "@playwright/test";

export default defineConfig({
  testDir: "e2e",
  globalSetup: "./e2e/setup.ts",
  // Each file of tests has a server and data of its own, so files run side by side.
  workers: 2,
  // Far longer than anything takes, so that a temporarily slow machine fails no test. The benchmarks measure speed.
  timeout: 600_000,
  expect: { timeout: 180_000 },
  forbidOnly: true,
  reporter: "list",
  use: {
    trace: "off",
    launchOptions: {
      executablePath: "/usr/bin/chromium",
      args: [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
      ],
    },
  },
  projects: [
    { name: "desktop", testIgnore: /phone/, use: { viewport: { width: 1280, height: 800 } } },
    {
      name: "phone",
      testMatch: /phone/,
      use: { ...devices["Pixel 7"], viewport: { width: 390, height: 844 } },
    },
  ],
});
