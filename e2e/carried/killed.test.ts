import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { IS_LONG } from '../../core/laws/often.ts';
import { dump } from '../../server/src/platform/upgrade/dump.ts';
import { upgrade } from '../../server/src/platform/upgrade/index.ts';
import { layOut, RELEASES } from './archive.ts';

const folders: string[] = [];
afterAll(() => {
  for (const folder of folders) rmSync(folder, { recursive: true, force: true });
});

function laidOut(release: string): string {
  const folder = mkdtempSync(join(tmpdir(), 'tolvek-killed-'));
  folders.push(folder);
  layOut(release, folder);
  return folder;
}

describe.each(RELEASES)('the data of release %s', (release) => {
  it('ends the same, at whatever step the start that brings it up to date is killed', () => {
    const steps: string[] = [];
    const whole = laidOut(release);
    upgrade(whole, { onStep: (name) => steps.push(name) });
    const wanted = dump(whole);
    const program = resolve(import.meta.dirname, '../../server/built/killed.mjs');
    // All migrations stand in one transaction: `npm run laws` is killed at each, this at every tenth.
    const isMigration = (step: string): boolean => /^\d{4}_/.test(step);
    const killedAt = steps.filter((step, at) => IS_LONG || !isMigration(step) || at % 10 === 1);
    for (const step of killedAt) {
      const folder = laidOut(release);
      expect(spawnSync(process.execPath, [program, folder, step]).signal).toBe('SIGKILL');
      upgrade(folder);
      expect([step, dump(folder) === wanted]).toEqual([step, true]);
      expect(readdirSync(folder).filter((name) => name.endsWith('-part'))).toEqual([]);
    }
    console.log(`${release}: killed at ${killedAt.join(', ')}`);
    for (const step of ['copy', 'check', 'commit', 'done']) expect(killedAt).toContain(step);
    expect(killedAt.filter(isMigration).length).toBeGreaterThan(3);
  }, 240_000);
});
