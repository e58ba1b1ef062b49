import { defineConfig } from 'drizzle-kit';

export default defineConfig({
  dialect: 'sqlite',
  schema: './src/house/schema.ts',
  out: './migrations',
  casing: 'snake_case',
});
