// Copies what the pages ship from the npm packages into web/assets/vendor. Run it after a package is updated: npm run vendor.
import { cp, mkdir, rm } from 'node:fs/promises'

const to = new URL('../web/assets/vendor/', import.meta.url)
const from = new URL('./node_modules/', import.meta.url)
const font = '@fontsource/atkinson-hyperlegible-next/'

const files = {
  'bootstrap.min.css': 'bootstrap/dist/css/bootstrap.min.css',
  'bootstrap.LICENSE': 'bootstrap/LICENSE',
  'alpine.csp.min.js': '@alpinejs/csp/dist/cdn.min.js',
  'atkinson-400.woff2': font + 'files/atkinson-hyperlegible-next-latin-400-normal.woff2',
  'atkinson-600.woff2': font + 'files/atkinson-hyperlegible-next-latin-600-normal.woff2',
  'atkinson-ext-400.woff2': font + 'files/atkinson-hyperlegible-next-latin-ext-400-normal.woff2',
  'atkinson-ext-600.woff2': font + 'files/atkinson-hyperlegible-next-latin-ext-600-normal.woff2',
  'atkinson.LICENSE': font + 'LICENSE',
}

await rm(to, { recursive: true, force: true })
await mkdir(to, { recursive: true })
for (const [name, source] of Object.entries(files)) {
  await cp(new URL(source, from), new URL(name, to))
}
