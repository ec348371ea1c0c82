// The real pages in headless Chromium, at desk width and on a phone. Each test starts a demo farm of its own.
import { defineConfig } from '@playwright/test'

export const launchOptions = {
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-component-update', '--no-first-run'],
}

export default defineConfig({
  testDir: '.',
  timeout: 300_000, // a busy machine can be ten times slower; what is wrong fails at once or at the wait below
  expect: { timeout: 30_000 },
  workers: 2,
  reporter: 'list',
  projects: [
    { name: 'desk', use: { launchOptions, viewport: { width: 1280, height: 800 } } },
    { name: 'phone', testIgnore: 'winter.spec.mjs', use: { launchOptions, viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true } },
  ],
})
