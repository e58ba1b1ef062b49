import { constants } from 'node:zlib';
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { compression, defineAlgorithm } from 'vite-plugin-compression2';

export default defineConfig({
  plugins: [
    react(),
    tailwindcss(),
    // Once and as small as can be: whoever asks on a slow line waits for the first page’s program.
    compression({
      include: /\.(js|css)$/,
      threshold: 1_000,
      algorithms: [defineAlgorithm('brotliCompress', { params: { [constants.BROTLI_PARAM_QUALITY]: 11 } })],
    }),
  ],
  build: {
    target: 'es2022',
    manifest: true,
    sourcemap: false,
    assetsInlineLimit: 0,
    rolldownOptions: {
      output: {
        // Read side by side while they arrive; and what rarely changes stays in the browser’s cache.
        codeSplitting: {
          groups: [
            { name: 'react', test: /node_modules\/(react|react-dom|scheduler)\// },
            {
              name: 'state',
              test: /node_modules\/(@reduxjs|redux|react-redux|reselect|immer|react-router|redux-thunk|use-sync-external-store)\//,
            },
          ],
        },
      },
    },
  },
  server: { port: 4311, proxy: { '/api': `http://127.0.0.1:${process.env.PORT ?? 4310}` } },
});
