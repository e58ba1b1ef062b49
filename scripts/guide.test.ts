import { readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { describe, expect, it } from 'vitest';
import { UNCLAIMED_FILES } from '../server/src/files/unclaimed.ts';
import { RETENTION } from '../server/src/house/retention.ts';

const root = resolve(import.meta.dirname, '..');
const read = (path: string): string => readFileSync(join(root, path), 'utf8');

describe('the guide', () => {
  it('tells how long things are kept, as they are', () => {
    const [, table = ''] = read('docs/guide.md').split('### How long things are kept');
    const rows = [...table.matchAll(/^\| (.+?) \| (.+?) \|$/gm)].slice(2).map(([, what, until]) => [what, until]);
    const kept = [...RETENTION, UNCLAIMED_FILES].map(({ what, until }) => [what, until]);
    expect(rows.sort()).toEqual(kept.sort());
  });
});

describe('the page on security', () => {
  it('names tests that are there', () => {
    const named = [...read('docs/security.md').matchAll(/`([\w/]+\.(?:test|spec)\.ts)`/g)].map(([, path = '']) => path);
    const places = ['', 'e2e/house/'];
    const missing = named.filter((path) => !places.some((place) => isThere(`${place}${path}`)));
    expect(named.length).toBeGreaterThan(10);
    expect(missing).toEqual([]);
  });
});

function isThere(path: string): boolean {
  try {
    return read(path).length > 0;
  } catch {
    return false;
  }
}
