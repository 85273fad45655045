/// <reference types="vitest/config" />
import react from '@vitejs/plugin-react'
import { basename } from 'node:path'
import { defineConfig } from 'vite'

export default defineConfig({
  plugins: [react()],
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
