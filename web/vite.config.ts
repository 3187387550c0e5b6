import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { svelte } from '@sveltejs/vite-plugin-svelte';
import tailwindcss from '@tailwindcss/vite';
import type { Plugin } from 'vite';
import { defineConfig } from 'vitest/config';

/** Builds the service worker under a name that stays, with the names of all other files in it and a mark of what they hold. */
function serviceWorker(): Plugin {
  return {
    name: 'service-worker',
    apply: 'build',
    generateBundle(_, bundle) {
      const worker = Object.values(bundle).find((one) => one.type === 'chunk' && one.name === 'sw');
      if (worker?.type !== 'chunk') throw new Error('the service worker was not built');
      const page = bundle['index.html'];
      const files = Object.keys(bundle).filter((name) => !/^(sw\.js|index\.html)$/.test(name));
      const lying = readdirSync('public');
      const mark = createHash('sha256').update([...files].sort().join());
      if (page?.type === 'asset') mark.update(page.source);
      for (const name of lying) mark.update(readFileSync(`public/${name}`));
      const names = JSON.stringify([...files, ...lying].sort().map((name) => `/${name}`));
      worker.code = `const FILES=${names},BUILT=${JSON.stringify(mark.digest('hex').slice(0, 16))};${worker.code}`;
    },
  };
}

// Nothing is inlined (the policy forbids inline scripts and styles); `npm run dev` talks to a running server.
export default defineConfig({
  plugins: [tailwindcss(), svelte(), serviceWorker()],
  build: {
    assetsInlineLimit: 0,
    target: 'es2022',
    chunkSizeWarningLimit: 400,
    rollupOptions: {
      input: { index: 'index.html', sw: 'worker/sw.ts' },
      output: { entryFileNames: (chunk) => (chunk.name === 'sw' ? 'sw.js' : 'assets/[name]-[hash].js') },
    },
  },
  server: { proxy: { '/api': 'http://127.0.0.1:8642' } },
  test: { environment: 'node', include: ['src/**/*.test.ts'] },
});
