import { join } from 'node:path';
import { type Figure, interleaved } from './figure.ts';
import type { Called } from './load.process.ts';
import { Part } from './processes.ts';

/** People who open the page at once, each from an address of their own, and how often all of them do. */
const CONNECTIONS = 200;
const TIMES = 2_000;

interface Once {
  readonly status: number;
  readonly text: string;
  readonly headers: Readonly<Record<string, string>>;
}

/** Headers that whoever answers sets anew each time, or that the transport sets. */
const OWN = /^(date|connection|keep-alive|transfer-encoding|content-(length|type|encoding)|ratelimit.*)$/;

/**
 * A door that has limits and shows its places, opened by two hundred at once: how long one of them takes. Beside it the
 * same by hand, which counts the callers by their address, looks up the door, its form, its release and what came by it, and answers the same
 * bytes under the same headers.
 */
export async function measureDoors(folder: string, tell: (figures: readonly Figure[]) => void): Promise<void> {
  const desk = await Part.start('./desk.process.ts', [join(folder, 'doors'), '400', '', '1']);
  const load = await Part.start('./load.process.ts');
  const copy = join(folder, 'doors-floor.sqlite');
  await desk.ask('copyTo', copy);
  const floor = await Part.start('./floor.process.ts', [copy, '']);
  const ours: Called = { url: `${await desk.ask<string>('url')}/api/doors/school-visit` };
  const { text, headers } = await load.ask<Once>('once', ours);
  const same = Object.fromEntries(Object.entries(headers).filter(([name]) => !OWN.test(name)));
  await floor.ask('door', { text, headers: same });
  const byHand: Called = { url: `${await floor.ask<string>('url')}/door/school-visit` };
  const opening = (each: Called) => load.ask<number>('opening', { each, connections: CONNECTIONS, times: TIMES });
  tell([
    await interleaved(
      `Opening a door with limits, of one of ${CONNECTIONS} at once, ms; limit: the same by hand on Express and prepared statements`,
      2,
      () => opening(ours),
      () => opening(byHand),
    ),
  ]);
  for (const part of [floor, load, desk]) await part.stop();
}
