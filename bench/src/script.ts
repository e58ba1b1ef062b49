import { readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { gzipSync } from 'node:zlib';
import { type Figure, figure } from './figure.ts';

const LIMIT = 180_000;

/**
 * What a requester's browser loads before they can type: the entry script and what it imports at
 * once, compressed.
 */
export function measureScript(): Figure {
  const dist = resolve(import.meta.dirname, '../../web/dist');
  const manifest = JSON.parse(readFileSync(join(dist, '.vite/manifest.json'), 'utf8')) as Record<
    string,
    { file: string; imports?: string[] }
  >;
  const loaded = new Set<string>();
  const load = (name: string): void => {
    const chunk = manifest[name];
    if (!chunk || loaded.has(chunk.file)) return;
    loaded.add(chunk.file);
    for (const each of chunk.imports ?? []) load(each);
  };
  load('index.html');
  const bytes = [...loaded].reduce((total, file) => total + gzipSync(readFileSync(join(dist, file))).length, 0);
  const name = 'Script before a requester can type, kB compressed; limit: 180';
  return figure(name, [bytes / 1000], [LIMIT / 1000], 1);
}
