import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { measureAssigned } from './assigned.ts';
import { measureBacklog } from './backlog.ts';
import { measureBrowser } from './browser.ts';
import { measureCrowd } from './crowd.ts';
import { measureDesk } from './desk.ts';
import { measureDoors } from './doors.ts';
import type { Figure } from './figure.ts';
import { Part } from './processes.ts';
import { measurePurchases } from './purchases.ts';
import { measureScript } from './script.ts';
import { measureViews } from './views.ts';
import { measureWhole } from './whole.ts';

/**
 * `npm run bench`: each figure beside a limit measured in turns in the same run. The application,
 * whoever calls it, the floor and the peers each have a process of their own. Writes
 * `.reports/bench.json` and says what falls short. `--size N`: requests in the ledger; `--sizes N,M`: at
 * which the crowd looks, `--large`: at a million too; `--mixed S`: seconds of the mixed run; `--only core`, `people`, `directory`, `desk`, `assigned`, `backlog`, `doors`, `purchases`,
 * `whole`, `views`, `crowd` or `browser`.
 */
const { values } = parseArgs({
  options: {
    size: { type: 'string', default: '10000' },
    sizes: { type: 'string', default: '10000,100000' },
    large: { type: 'boolean', default: false },
    mixed: { type: 'string', default: '120' },
    only: { type: 'string', default: '' },
  },
});
const sizes = [...values.sizes.split(',').map(Number), ...(values.large ? [1_000_000] : [])];
const folder = mkdtempSync(join(tmpdir(), 'tolvek-bench-'));
const figures: Figure[] = [];
const tell = (more: readonly Figure[]): void => {
  for (const each of more) {
    figures.push(each);
    console.log(
      `${each.met ? ' ' : '!'} ${each.name}\n    ours ${each.ours}, limit ${each.limit}: ${each.ratio} times, ${each.wanted} wanted`,
    );
  }
};

try {
  if (values.only === '' || values.only === 'browser') await measureBrowser(folder, tell);
  if (values.only === '' || values.only === 'core') {
    const core = await Part.start('./core.process.ts');
    for (const what of [
      'rules',
      'analysis',
      'keystroke',
      'proof',
      'rows',
      'bombs',
      'flow',
      'planChange',
      'reveal',
      'editions',
      'assignment',
      'forecast',
      'letters',
    ])
      tell(await core.ask<Figure[]>(what));
    await core.stop();
    tell([measureScript()]);
  }
  if (values.only === '' || values.only === 'people') {
    const people = await Part.start('./people.process.ts');
    tell(await people.ask<Figure[]>('people', { folder, sizes: [2_000, 20_000] }));
    await people.stop();
  }
  if (values.only === '' || values.only === 'directory') {
    const directory = await Part.start('./directory.process.ts');
    tell(await directory.ask<Figure[]>('directory', { folder, size: 20_000 }));
    await directory.stop();
  }
  if (values.only === '' || values.only === 'desk')
    await measureDesk({ folder, size: Number(values.size), mixed: Number(values.mixed) }, tell);
  if (values.only === '' || values.only === 'assigned') await measureAssigned(folder, tell);
  if (values.only === '' || values.only === 'backlog') await measureBacklog(folder, tell);
  if (values.only === '' || values.only === 'doors') await measureDoors(folder, tell);
  if (values.only === '' || values.only === 'purchases') await measurePurchases(folder, tell);
  if (values.only === '' || values.only === 'whole') await measureWhole(folder, tell);
  if (values.only === '' || values.only === 'views') await measureViews({ folder, sizes }, tell);
  if (values.only === '' || values.only === 'crowd') await measureCrowd({ folder, sizes }, tell);
} finally {
  rmSync(folder, { recursive: true, force: true });
}
const reports = resolve(import.meta.dirname, '../../.reports');
mkdirSync(reports, { recursive: true });
writeFileSync(join(reports, 'bench.json'), `${JSON.stringify(figures, null, 2)}\n`);
const short = figures.filter((each) => !each.met);
console.log(
  short.length === 0 ? 'Every figure is reached.' : `${short.length} of ${figures.length} figures fall short:`,
);
for (const each of short) console.log(`  ${each.name}: ${each.ratio} times, ${each.wanted} wanted`);
process.exit(0);
