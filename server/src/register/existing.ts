import type { AnswerOf } from '@tolvek/contract';
import { readableKeys, relationTo, reveal, revealChanges, revealSubject } from '@tolvek/core/access';
import { dateAt } from '@tolvek/core/deadline';
import { namesIn } from '@tolvek/core/expression';
import { type FormDesign, type FormRule, prepareKeeping } from '@tolvek/core/form';
import type { Viewer } from '@tolvek/core/people';
import type { Field } from '@tolvek/core/register';
import { and, asc, eq, ne } from 'drizzle-orm';
import { calendarOf } from '../deadline/queries.ts';
import { formByKey, releaseById } from '../form/queries.ts';
import { forms } from '../form/tables.ts';
import type { Reader } from '../platform/database.ts';
import { type House, write } from '../platform/house.ts';
import { notFound } from '../platform/problem.ts';
import { carryOn } from './carryOn.ts';
import { claim } from './claims.ts';
import { changesBetween, factsOfRequest } from './commands.ts';
import { remember } from './history.ts';
import { nameOf } from './names.ts';
import { holdsThings, partiesIn, type RequestRow, registerById } from './queries.ts';
import { point } from './references.ts';
import { registers, requests } from './tables.ts';

const QUARTER = 15 * 60_000;

/** Requests that are listed one by one; all of them are counted. */
const LISTED = 50;

const requestsOf = (db: Reader, registerId: string, among: 'unfinished' | 'all'): readonly RequestRow[] =>
  db
    .select()
    .from(requests)
    .where(
      and(
        eq(requests.registerId, registerId),
        among === 'all' ? undefined : ne(requests.phase, 'finished'),
        eq(requests.trial, false),
      ),
    )
    .orderBy(asc(requests.createdAt))
    .all();

/**
 * What a rule of the draft would do to the requests that are there, unfinished or all of them, or,
 * with `apply`, does it. Each request is looked at by itself: one the rule refuses is left as it
 * is, and told.
 */
export function overExisting(
  house: House,
  viewer: Viewer,
  input: { form: string; rule: string; apply: boolean; among: 'unfinished' | 'all' },
): AnswerOf<'overExisting'> {
  return write(house, (tx, effects, now) => {
    const form = formByKey(tx, input.form);
    const rule = form?.draft.rules.find((each) => each.id === input.rule);
    if (!form || !rule) throw notFound('This rule');
    const register = registerById(tx, form.registerId);
    const keep = prepareKeeping({
      fields: register.fields,
      parts: form.draft.parts,
      rules: [{ ...rule, on: true, runs: 'saving' }],
    });
    const answer = {
      looked: 0,
      changed: 0,
      refused: 0,
      applied: input.apply,
      requests: [] as AnswerOf<'overExisting'>['requests'],
    };
    for (const request of requestsOf(tx, register.id, input.among)) {
      answer.looked += 1;
      const kept = keep(request.values, new Set(), factsOfRequest(tx, request, register, now));
      const changes = kept.problems.length > 0 ? [] : changesBetween(register.fields, request.values, kept.values);
      if (kept.problems.length > 0) answer.refused += 1;
      else if (changes.length === 0) continue;
      else answer.changed += 1;
      if (answer.requests.length < LISTED) {
        const access = {
          fields: register.fields,
          plan: register.access,
          viewer,
          relation: relationTo(partiesIn(request, register), viewer),
          nameOf: nameOf(tx),
        };
        const { design } = releaseById(tx, request.releaseId).release;
        answer.requests.push({
          number: request.number,
          subject: revealSubject(design.subject, reveal({ ...access, values: request.values }), design.title),
          refused: kept.problems[0]?.message ?? null,
          changes: revealChanges(changes, register.fields, readableKeys(access), access.nameOf),
        });
      }
      if (!input.apply || changes.length === 0) continue;
      tx.update(requests)
        .set({ values: kept.values, version: request.version + 1, updatedAt: now })
        .where(eq(requests.id, request.id))
        .run();
      claim(tx, request, releaseById(tx, request.releaseId).release.design, kept.values);
      point(tx, request.id, register.fields, kept.values);
      remember(tx, now, {
        requestId: request.id,
        actorId: viewer.personId,
        kind: 'fields',
        words: `Rule “${rule.name}” was applied to what was there`,
        changes,
      });
      effects.changed.add(request.id);
      carryOn(tx, effects, now, { id: request.id, number: request.number, changes });
    }
    return answer;
  });
}

/** Whether a register has values that change with the clock alone. */
const followsClock = (fields: readonly Field[]): boolean =>
  fields.some(
    (field) => field.source === 'computed' && namesIn(field.formula).some((name) => name === 'today' || name === 'now'),
  );

/**
 * Computes anew, on a new day at the desk, what depends on the day: on unfinished requests and on
 * things, without a line in their history.
 */
export class DayTurn {
  private readonly seen = new Map<string, string>();
  private quarter = 0;

  constructor(private readonly house: House) {}

  turn(): void {
    const { db, clock } = this.house;
    // In every zone days turn at a quarter of an hour; in between nothing has to be read.
    const quarter = Math.floor(clock.now() / QUARTER);
    if (quarter === this.quarter) return;
    this.quarter = quarter;
    for (const register of db.select().from(registers).all()) {
      const form = db.select().from(forms).where(eq(forms.registerId, register.id)).get();
      if (!form || !followsClock(register.fields)) continue;
      const today = dateAt(clock.now(), calendarOf(db, (form.draft as FormDesign).deadline.calendar).zone);
      if (this.seen.get(register.id) === today) continue;
      this.seen.set(register.id, today);
      write(this.house, (tx, effects, now) => {
        const none: readonly FormRule[] = [];
        const keep = prepareKeeping({ fields: register.fields, parts: [], rules: none });
        for (const request of requestsOf(tx, register.id, holdsThings(register) ? 'all' : 'unfinished')) {
          const { values } = keep(request.values, new Set(), factsOfRequest(tx, request, register, now));
          const changes = changesBetween(register.fields, request.values, values);
          if (changes.length === 0) continue;
          tx.update(requests).set({ values }).where(eq(requests.id, request.id)).run();
          effects.changed.add(request.id);
          carryOn(tx, effects, now, { id: request.id, number: request.number, changes });
        }
      });
    }
  }
}
