import node from '@astrojs/node';
import react from '@astrojs/react';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'astro/config';

export default defineConfig({
  output: 'server',
  adapter: node({ mode: 'standalone' }),
  integrations: [react()],
  // Our own rule stands in src/server/http: every write must be JSON, which a foreign page cannot send unasked.
  security: { checkOrigin: false },
  devToolbar: { enabled: false },
  vite: {
    plugins: [tailwindcss()],
    ssr: { external: ['better-sqlite3', 'knex', 'pdfkit', 'fontkit', 'svg-to-pdfkit', 'bwip-js'] },
  },
});
