import { readdirSync } from 'node:fs';
import { join } from 'node:path';

/** Every TypeScript file of a folder, at any depth; not what is installed, built or made. */
export function sourcesIn(folder: string): readonly string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    if (['node_modules', 'dist', 'migrations'].includes(entry.name)) return [];
    const path = join(folder, entry.name);
    return entry.isDirectory() ? sourcesIn(path) : /\.tsx?$/.test(entry.name) ? [path] : [];
  });
}
