/** `npm start`: installs, builds, migrates and serves the maker's own data, without any demo. */
process.env.PROPORTIA_EMPTY = '1';
await import('./demo.mjs');
