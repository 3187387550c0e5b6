import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { svelte } from '@sveltejs/vite-plugin-svelte';
import tailwindcss from '@tailwindcss/vite';
import { marked } from 'marked';
import { dirname, join } from 'node:path';
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
      const files = Object.keys(bundle).filter((name) => !/^(sw\.js|index\.html|build\.json)$/.test(name));
      const lying = readdirSync('public');
      const mark = createHash('sha256').update([...files].sort().join());
      if (page?.type === 'asset') mark.update(page.source);
      for (const name of lying) mark.update(readFileSync(`public/${name}`));
      const names = JSON.stringify([...files, ...lying].sort().map((name) => `/${name}`));
      worker.code = `const FILES=${names},BUILT=${JSON.stringify(mark.digest('hex').slice(0, 16))};${worker.code}`;
    },
  };
}

/** Names this build, for the screens and, in a file beside them, for the program that serves them. */
const BUILD = Date.now().toString(36);
function buildName(): Plugin {
  return {
    name: 'build-name',
    apply: 'build',
    generateBundle() {
      this.emitFile({ type: 'asset', fileName: 'build.json', source: JSON.stringify({ build: BUILD }) });
    },
  };
}

/** A page of docs/manual as HTML with its drawings in it, so that they take the colours of the theme. */
function manualPages(): Plugin {
  const QUERY = '?page';
  return {
    name: 'manual-pages',
    enforce: 'pre',
    load(id) {
      if (!id.endsWith(`.md${QUERY}`)) return;
      const file = id.slice(0, -QUERY.length);
      this.addWatchFile(file);
      const text = readFileSync(file, 'utf8')
        .replace(/!\[(.*?)\]\((.+?\.svg)\)/g, (_, says: string, name: string) => {
          const drawing = readFileSync(join(dirname(file), name), 'utf8');
          return `<figure>${drawing}<figcaption>${says}</figcaption></figure>`;
        })
        .replace(/\]\((\w[\w-]*)\.md\)/g, '](/manual/$1)');
      const title = /^# (.+)$/m.exec(text)?.[1] ?? '';
      return `export default ${JSON.stringify({ title, html: marked.parse(text, { async: false }) })}`;
    },
  };
}

// Nothing is inlined (the policy forbids inline scripts and styles); `npm run dev` talks to a running server.
export default defineConfig({
  plugins: [manualPages(), tailwindcss(), svelte(), buildName(), serviceWorker()],
  define: { __BUILD__: JSON.stringify(BUILD) },
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
  // No test leaves anything behind in a module, so the modules are loaded once for all of them.
  test: { environment: 'node', pool: 'threads', isolate: false, include: ['src/**/*.test.ts'] },
});
