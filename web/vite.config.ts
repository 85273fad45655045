/// <reference types="vitest/config" />
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

export default defineConfig({
  plugins: [react()],
  server: { proxy: { '/api': 'http://127.0.0.1:8321' } },
  build: { target: 'es2022', chunkSizeWarningLimit: 1600 },
  test: {
    environment: 'jsdom',
    testTimeout: 20_000,
    setupFiles: ['src/setup.test.ts'],
    include: ['src/**/*.test.{ts,tsx}'],
    exclude: ['src/setup.test.ts'],
  },
})
