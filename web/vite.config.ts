import { svelte } from '@sveltejs/vite-plugin-svelte';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vitest/config';

// Nothing is inlined (the policy forbids inline scripts and styles); `npm run dev` talks to a running server.
export default defineConfig({
  plugins: [tailwindcss(), svelte()],
  build: { assetsInlineLimit: 0, target: 'es2022', chunkSizeWarningLimit: 400 },
  server: { proxy: { '/api': 'http://127.0.0.1:8642' } },
  test: { environment: 'node', include: ['src/**/*.test.ts'] },
});
