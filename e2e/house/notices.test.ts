import { decide, submit, viewerOf } from '@tolvek/server';
import { letters, notices, people, requests } from '@tolvek/server/schema';
import { and, asc, eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Desk, VISIT, WATER } from './desk.ts';

let desk: Desk;
const db = () => desk.running.house.db;
const house = () => desk.running.house;
const personOf = (name: string) => {
  const person = db().select().from(people).where(eq(people.name, name)).get();
  if (!person) throw new Error(`${name} is not there.`);
  return person;
};
const viewer = (name: string) => {
  const found = viewerOf(db(), personOf(name).id);
  if (!found) throw new Error(`${name} may not come in.`);
  return found;
};

beforeAll(async () => {
  desk = await Desk.open();
});
afterAll(() => desk.close());

let asked = 0;
/** Asks in this very process: nothing is sent until it next waits for something. */
function ask(answers: object): string {
  asked += 1;
  const sent = submit(house(), viewer('Priya Nakamura-Lind'), {
    ...{ slug: 'come-on-site', release: 1, key: crypto.randomUUID() },
    answers: { ...answers, visitor: `Visitor ${'i'.repeat(asked)}` },
  });
  if (sent.state !== 'arrived') throw new Error(sent.state);
  return sent.number;
}
const noticesOf = (number: string) =>
  db()
    .select({ kind: notices.kind, state: notices.state, to: notices.toName, said: notices.said })
    .from(notices)
    .innerJoin(requests, eq(requests.id, notices.requestId))
    .where(eq(requests.number, number))
    .orderBy(asc(notices.id))
    .all();
const statesOf = (number: string, kind: string): readonly string[] =>
  noticesOf(number)
    .filter((each) => each.kind === kind)
    .map(({ state, to }) => `${to}: ${state}`)
    .sort();

describe('a notice', () => {
  it('says nothing until it goes out, and then what its reader may read', async () => {
    const number = ask(VISIT);
    expect(noticesOf(number).map(({ said }) => said)).toEqual(noticesOf(number).map(() => null));
    db().update(people).set({ name: 'Priya N. Lind' }).where(eq(people.name, 'Priya Nakamura-Lind')).run();
    await desk.running.lettersSent();
    db().update(people).set({ name: 'Priya Nakamura-Lind' }).where(eq(people.name, 'Priya N. Lind')).run();
    const [received] = noticesOf(number).filter(({ kind }) => kind === 'received');
    expect(received).toMatchObject({ state: 'sent', to: 'Priya N. Lind' });
    expect(received?.said).toMatchObject({
      ...{ path: `/my/${number}`, link: null },
      letter: { greeting: 'Dear Priya N. Lind,' },
    });
  });

  it('is dropped where nothing is left to tell, or nobody to tell it to', async () => {
    const decided = ask(WATER);
    decide(house(), viewer('Tomas Achterberg'), {
      ...{ number: decided, verdict: 'approve', comment: '', key: crypto.randomUUID(), seen: null },
    });
    const away = ask(WATER);
    const edda = personOf('Edda Kilbride');
    db().update(people).set({ active: false }).where(eq(people.id, edda.id)).run();
    await desk.running.lettersSent();
    db().update(people).set({ active: true }).where(eq(people.id, edda.id)).run();
    expect(statesOf(decided, 'approval-asked')).toEqual(['Edda Kilbride: dropped', 'Tomas Achterberg: dropped']);
    expect(statesOf(decided, 'approved')).toEqual(['Priya Nakamura-Lind: sent']);
    expect(statesOf(away, 'approval-asked')).toEqual(['Edda Kilbride: dropped', 'Tomas Achterberg: sent']);
    const about = (await desk.letters()).filter(({ subject }) => subject.includes(`(${decided})`));
    expect(about.filter(({ text }) => text.includes('/decide/'))).toEqual([]);
  });

  it('that can’t be worded holds up no other, and is counted as given up', async () => {
    const number = ask(VISIT);
    const request = db().select().from(requests).where(eq(requests.number, number)).get();
    db()
      .insert(notices)
      .values({
        ...{ id: 'odd', requestId: request?.id ?? '', personId: personOf('Maren Okafor').id, kind: 'stage' },
        ...{ cause: { kind: 'stage', stage: 'nowhere', finished: false }, toName: '', toAddress: 'm@skerrow.example' },
        ...{ state: 'waiting', nextAttemptAt: 0, createdAt: 0 },
      })
      .run();
    house().wakeOutbox();
    await desk.running.lettersSent();
    const odd = db().select().from(notices).where(eq(notices.id, 'odd')).get();
    expect([odd?.state, odd?.lastError]).toEqual(['failed', expect.stringContaining('No stage “nowhere”')]);
    expect(statesOf(number, 'received')).toEqual(['Priya Nakamura-Lind: sent']);
    db().delete(notices).where(eq(notices.id, 'odd')).run();
  });

  it('is the same letter when it goes again, with the same link', async () => {
    const number = ask(WATER);
    await desk.running.lettersSent();
    const [asking] = db()
      .select({ id: notices.id })
      .from(notices)
      .innerJoin(requests, eq(requests.id, notices.requestId))
      .where(and(eq(requests.number, number), eq(notices.kind, 'approval-asked')))
      .all();
    const which = eq(letters.messageId, `<${asking?.id}@tolvek>`);
    const first = db().select().from(letters).where(which).get();
    expect(first?.text).toMatch(/\/decide\/[\w-]{32}\n/);
    // What it says stays, whatever is so by now.
    db().update(people).set({ name: 'Somebody Else' }).where(eq(people.name, 'Priya Nakamura-Lind')).run();
    db().delete(letters).where(which).run();
    db()
      .update(notices)
      .set({ state: 'waiting' })
      .where(eq(notices.id, asking?.id ?? ''))
      .run();
    house().wakeOutbox();
    await desk.running.lettersSent();
    db().update(people).set({ name: 'Priya Nakamura-Lind' }).where(eq(people.name, 'Somebody Else')).run();
    const again = db().select().from(letters).where(which).get();
    expect([again?.subject, again?.text, again?.html]).toEqual([first?.subject, first?.text, first?.html]);
  });
});
