// The real pages in headless Chromium, at desk width and on a phone. Each test starts a demo farm of its own.
import { defineConfig } from '@playwright/test'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'

// A folder of its own for each run: a second one beside it would sweep the first one's farms away. Those who do the work find it named.
process.env.DEWCOUNT_FARMS ??= mkdtempSync(`${tmpdir()}/dewcount-`)

export const launchOptions = {
  executablePath: '/usr/bin/chromium-headless-shell',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-component-update', '--no-first-run'],
}

export default defineConfig({
  testDir: '.',
  outputDir: process.env.DEWCOUNT_FARMS,
  preserveOutput: 'failures-only',
  timeout: 900_000, // a busy machine can be ten times slower; what is wrong fails at once or at the wait below
  expect: { timeout: 90_000 },
  workers: 2,
  reporter: 'list',
  projects: [
    { name: 'desk', use: { launchOptions, viewport: { width: 1280, height: 800 } } },
    { name: 'phone', testIgnore: ['winter.spec.mjs', 'walk.spec.mjs'], use: { launchOptions, viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true } },
  ],
})
