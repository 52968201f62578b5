import node from '@astrojs/node';
import react from '@astrojs/react';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'astro/config';

export default defineConfig({
  output: 'server',
  // The pages and endpoints alone; `src/server/serve.ts` is the server around them.
  adapter: node({ mode: 'middleware' }),
  integrations: [react()],
  // Our own rules stand in src/server/front: only this very origin is answered.
  security: { checkOrigin: false },
  // Astro's image endpoint makes pictures of any size on demand. We use none of it, so its address leads nowhere.
  image: { endpoint: { route: '/_image', entrypoint: './src/server/no-images.ts' } },
  experimental: {
    csp: {
      directives: [
        "default-src 'self'",
        "img-src 'self' data: blob:",
        "font-src 'self' data:",
        "connect-src 'self'",
        "worker-src 'self' blob:",
        "object-src 'none'",
        "base-uri 'none'",
        "form-action 'self'",
        "frame-ancestors 'none'",
      ],
      // The blend solver is WebAssembly.
      scriptDirective: { resources: ["'self'", "'wasm-unsafe-eval'"] },
      // The charts' legend sets one sheet of its own, whose words never change.
      styleDirective: {
        resources: ["'self'"],
        hashes: [
          'sha256-aSysLrDECVdJ6L+jLf8CC5QKLmwRuk/OZiZk9mYky8A=',
          // So does React Aria, for what can be pressed on a touch screen.
          'sha256-38RhXrc7EdReTKsOm23ZPOCUgniTUUcjky8QOOrQx6o=',
        ],
      },
    },
  },
  devToolbar: { enabled: false },
  vite: {
    plugins: [tailwindcss()],
    ssr: {
      // Put into the build and shaken there: as a thousand files each they would be loaded at the first look at a page.
      noExternal: [
        /^(react-aria|react-stately)/,
        /^@(react-aria|react-stately|internationalized|tanstack|dnd-kit)\//,
        /^(lucide-react|date-fns|react-hook-form|cmdk|class-validator|validator|libphonenumber-js)$/,
      ],
      external: [
        'better-sqlite3',
        'knex',
        'pdfkit',
        'fontkit',
        'svg-to-pdfkit',
        'bwip-js',
        'piscina',
        'pngjs',
      ],
    },
  },
});
