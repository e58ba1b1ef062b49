import type { RouteName } from '@tolvek/contract';
import type { FormDesign } from '@tolvek/core/form';
import { requests } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import { type Answer, type Caller, type Desk, onVersion } from './desk.ts';

/** A change that somebody sends, and that waits. */
interface Sent {
  readonly by: Caller;
  /** The number of the request of theirs that it changes. */
  readonly number: string;
  readonly answers: object;
  /** The fields that the form asks for. */
  readonly asks: readonly string[];
}

/** How calls are made and what they answer, and the keys of what is done once, by a name. */
interface Calls {
  readonly maren: Caller;
  readonly well: (calling: Promise<Answer>) => Promise<Answer['body']>;
  readonly keyed: (name: string) => Readonly<Record<string, string>>;
}

type Inputs = Partial<Record<RouteName, readonly NonNullable<Parameters<Caller['call']>[1]>[]>>;

/** Another form of a register, by which whoever asked changes what they sent. Its key, and the slug of its door. */
async function formThatChanges(
  { maren, well, keyed }: Calls,
  register: string,
  title: string,
  asks: readonly string[],
) {
  const body = { title, asks, doors: { staff: true, outside: false } };
  const into = { params: { key: register }, headers: keyed(`asks-into-${title.replace(' ', '-')}`), body };
  const { key } = await well(maren.call('askInto', into));
  const params = { key };
  const form = (await well(maren.call('form', { params }))) as { draft: FormDesign; version: number };
  const parts = form.draft.parts.map((part) => (part.part === 'question' ? { ...part, required: false } : part));
  const updates = { whose: '~requester', by: [], none: 'refuse', waits: true };
  const draft = { draft: { ...form.draft, parts, updates } };
  const { version } = await well(maren.call('saveDraft', { params, headers: onVersion(form.version), body: draft }));
  await well(maren.call('releaseForm', { params, headers: onVersion(version), body: { note: '' } }));
  return key as string;
}

/**
 * Four changes of requests of a register, sent by forms that change what is there, and what is called about them: the
 * first is accepted, the second refused, the third taken back, the last refused by the link in an email.
 */
export async function sendChanges(
  desk: Desk,
  calls: Calls,
  register: string,
  sent: readonly [Sent, Sent, Sent, Sent],
): Promise<Inputs> {
  const { db } = desk.running.house;
  const idOf = (number: string): string =>
    db.select({ id: requests.id }).from(requests).where(eq(requests.number, number)).get()?.id ?? '';
  const waiting: { slug: string; number: string; id: string; seen: string }[] = [];
  for (const [index, { by, number, answers, asks }] of sent.entries()) {
    const slug = await formThatChanges(calls, register, `Change ${index}`, asks);
    const more = { entry: idOf(number) };
    await calls.well(by.submit(slug, answers, { release: 1, key: `a-change-${index}`, more }));
    const [proposal] = (await calls.well(calls.maren.call('sheet', { params: { number } }))).proposals;
    waiting.push({ slug, number, id: proposal.id, seen: proposal.seen });
  }
  const [accepted, refused, ended] = waiting;
  const at = (which: typeof accepted) => ({ params: { number: which?.number ?? '', id: which?.id ?? '' } });
  // One of those who may accept the last has the link of an email about it.
  const token = await desk.tokenFor('', 'accept');
  return {
    proposalLink: [{ params: { token } }],
    decideProposal: [{ params: { token }, body: { verdict: 'refuse', comment: 'Not so.', seen: '' } }],
    door: waiting.map(({ slug }) => ({ params: { slug } })),
    acceptProposal: [{ ...at(accepted), body: { seen: accepted?.seen ?? '', comment: '' } }],
    refuseProposal: [{ ...at(refused), body: { reason: 'Not now.' } }],
    endProposal: [{ params: { id: ended?.id ?? '' } }],
  };
}
