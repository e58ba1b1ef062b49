import { defineConfig } from 'drizzle-kit';

export default defineConfig({
  dialect: 'sqlite',
  schema: './src/platform/schema.ts',
  out: './migrations',
  casing: 'snake_case',
});
