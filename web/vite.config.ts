/// <reference types="vitest/config" />
import react from '@vitejs/plugin-react'
import { basename } from 'node:path'
import { defineConfig, type Plugin } from 'vite'
import { VitePWA } from 'vite-plugin-pwa'

/** The files the client's page and the floor are made of, by their names in dist: what is kept for being without network. */
const small = new Set<string>()

/** smallEntry finds them once everything is put together. */
function smallEntry(): Plugin {
  return {
    name: 'small-entry',
    generateBundle(_, bundle) {
      const walk = (file: string) => {
        if (small.has(file)) return
        small.add(file)
        const chunk = bundle[file]
        if (chunk?.type !== 'chunk') return
        for (const next of [...chunk.imports, ...chunk.dynamicImports]) walk(next)
        for (const css of chunk.viteMetadata?.importedCss ?? []) small.add(css)
      }
      for (const [file, chunk] of Object.entries(bundle))
        if (chunk.type === 'chunk' && chunk.isEntry && chunk.facadeModuleId?.endsWith('link.html')) walk(file)
    },
  }
}

// The two fonts as most readers need them; other scripts come with network.
const latin = /source-(sans|serif)-\d-latin-wght-normal.*\.woff2$/

export default defineConfig({
  plugins: [
    react(),
    smallEntry(),
    VitePWA({
      filename: 'sw.js',
      injectRegister: false, // the small entry registers it itself
      manifest: false, // each link has its own
      workbox: {
        globPatterns: ['link.html', 'icon.svg', 'assets/*.{js,css,woff2}'],
        manifestTransforms: [
          (entries) => ({
            manifest: entries.filter((e) => !e.url.startsWith('assets/') || small.has(e.url) || latin.test(e.url)),
            warnings: [],
          }),
        ],
        inlineWorkboxRuntime: true,
        cleanupOutdatedCaches: true,
        navigateFallback: null,
        navigationPreload: true, // the page is asked for while the worker wakes
        runtimeCaching: [
          {
            // A page of a client, or of the floor: from the server while there is one, else from the device; never kept itself.
            urlPattern: ({ request, url }) =>
              request.mode === 'navigate' && /^\/(s\/[^/]+|floor(\/.*)?)$/.test(url.pathname),
            handler: 'NetworkOnly',
            options: { precacheFallback: { fallbackURL: 'link.html' } },
          },
        ],
      },
    }),
  ],
  server: { proxy: { '/api': 'http://127.0.0.1:8321' } },
  // Two pages: the coach's, and the client's by a link, which is small and reads on an old phone.
  // A class is named by its module and its name there, so that a rule seen in a browser tells where it is written.
  css: { modules: { generateScopedName: (name, file) => `${basename(file).split('.')[0]}_${name}` } },
  build: { target: 'es2020', chunkSizeWarningLimit: 1600, rollupOptions: { input: ['index.html', 'link.html'] } },
  test: {
    environment: 'jsdom',
    css: { include: /\.module\.css$/, modules: { classNameStrategy: 'scoped' } },
    testTimeout: 20_000,
    setupFiles: ['src/setup.test.ts'],
    include: ['src/**/*.test.{ts,tsx}'],
    exclude: ['src/setup.test.ts'],
  },
})
