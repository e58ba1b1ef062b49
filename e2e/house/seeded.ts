import { cpSync, existsSync, mkdtempSync, renameSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { DEMO_NOW, demoConfig, seed } from '@tolvek/demo';
import { start } from '@tolvek/server';

/** The folders that the tests of one run copy; without them each desk is filled anew. */
const KEPT = process.env.TOLVEK_SEEDED;

/**
 * Lays a data folder out as the demo fills an empty one, with `size` requests: the story is played in once in a run of
 * tests, and copied from then on.
 */
export async function layOutSeeded(folder: string, size: number): Promise<void> {
  if (!KEPT) return;
  const kept = join(KEPT, String(size));
  if (!existsSync(kept)) await keepSeeded(kept, size);
  cpSync(kept, folder, { recursive: true });
}

async function keepSeeded(kept: string, size: number): Promise<void> {
  const made = mkdtempSync(join(tmpdir(), 'tolvek-seeding-'));
  const config = demoConfig({ TOLVEK_DATA: made, PORT: '0', TOLVEK_LOG: 'error' });
  const running = await start(config, { demoNow: DEMO_NOW, seed: (house) => seed(house, size) });
  await running.stop();
  try {
    renameSync(made, kept);
  } catch {
    // Another process was faster.
    rmSync(made, { recursive: true, force: true });
  }
}
