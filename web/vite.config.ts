import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react(), tailwindcss()],
  build: { target: 'es2022', manifest: true, sourcemap: false, assetsInlineLimit: 0 },
  server: { port: 4311, proxy: { '/api': `http://127.0.0.1:${process.env.PORT ?? 4310}` } },
});
