import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Makes room for data folders that are filled once in a run of tests and copied from then on; they go when it ends. */
export default function setup(): () => void {
  const folder = mkdtempSync(join(tmpdir(), 'tolvek-seeded-'));
  process.env.TOLVEK_SEEDED = folder;
  return () => rmSync(folder, { recursive: true, force: true });
}
