import type { RouteName } from '@tolvek/contract';
import { type Answer, type Caller, type Desk, onVersion, VISIT } from './desk.ts';

type Inputs = Partial<Record<RouteName, readonly NonNullable<Parameters<Caller['call']>[1]>[]>>;

/** How calls are made and what they answer, and the keys of what is done once, by a name. */
interface Calls {
  readonly maren: Caller;
  readonly well: (calling: Promise<Answer>) => Promise<Answer['body']>;
  readonly keyed: (name: string) => Readonly<Record<string, string>>;
}

/**
 * A door with one place that is taken: somebody from outside waits, the place is free again, and they are written to. The
 * calls with which the line is joined and left by others. It tells of no request.
 */
export async function waitInLine(desk: Desk, { maren, well, keyed }: Calls): Promise<Inputs> {
  const params = { key: 'site-access' };
  const body = { name: 'One at a time', proof: 'confirmed-address' };
  const { slug } = await well(maren.call('addDoor', { params, headers: keyed('one-place'), body }));
  const { door, version } = await well(maren.call('doorDesign', { params: { slug } }));
  const limits = [{ id: 'one', most: 1, of: 'all', days: null }];
  const set = { door: { ...door, limits, waits: 24, withdraws: 'finished' }, note: '' };
  await well(maren.call('changeDoor', { params: { slug }, headers: onVersion(version), body: set }));
  const first = await desk.as('Declan Oyelaran');
  const release = await releaseOf(maren);
  const sent = await well(
    first.call('submit', { params: { slug }, headers: keyed('in-line'), body: { release, answers: VISIT } }),
  );
  const stranger = await desk.as();
  const contact = { name: 'Ivo Penhallow', email: 'ivo.waits@haldane.example' };
  await well(stranger.call('joinLine', { params: { slug }, body: { contact } }));
  const { version: now } = await well(first.call('myRequest', { params: { number: sent.number } }));
  await well(
    first.call('withdrawMine', { params: { number: sent.number }, headers: onVersion(now), body: { reason: '' } }),
  );
  await well(stranger.call('advanceClock', { body: { minutes: 1 } }));
  const waits = { name: 'Greta Waits', email: 'greta.waits@haldane.example' };
  return {
    joinLine: [
      { params: { slug }, body: {} },
      { params: { slug }, body: { contact: waits } },
    ],
    leaveLine: [{ params: { slug }, body: {} }],
  };
}

const releaseOf = async (maren: Caller): Promise<number> =>
  (await maren.call('door', { params: { slug: 'visit' } })).body.form.release;
