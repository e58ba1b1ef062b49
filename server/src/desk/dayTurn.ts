import { dateAt, turnsWith } from '@tolvek/core/deadline';
import { namesIn } from '@tolvek/core/expression';
import type { FormDesign } from '@tolvek/core/form';
import type { Field } from '@tolvek/core/register';
import { calendarOf } from '../calendar/queries.ts';
import { turnDeadlines } from '../deadline/follow.ts';
import { releaseById, releasesInto } from '../form/queries.ts';
import { tellOfDays } from '../notice/days.ts';
import { tellStandIns } from '../notice/follow.ts';
import { beginDay } from '../people/rules.ts';
import { isTurned } from '../people/settle.ts';
import type { House } from '../platform/house.ts';
import { patiently } from '../platform/patience.ts';
import { inGroups } from '../platform/turns.ts';
import { type Work, write } from '../platform/work.ts';
import { allRegisters, holdsThings, type RegisterRow } from '../register/queries.ts';
import { changeRequest } from '../request/change.ts';
import { changesBetween } from '../request/changes.ts';
import { countedIn, eachRequest } from '../request/eachRequest.ts';
import { factsOfRequest, pickedBy } from '../request/facts.ts';
import { fieldsOf } from '../request/fields.ts';
import { type RequestRow, requestById } from '../request/queries.ts';
import { computedBy } from '../request/settle.ts';

const QUARTER = 15 * 60_000;

/** Whether a register has values that change with the clock alone. */
const followsClock = (fields: readonly Field[]): boolean =>
  fields.some(
    (field) => field.source === 'computed' && namesIn(field.formula).some((name) => name === 'today' || name === 'now'),
  );

/**
 * Computes anew, on a new day at the desk, what depends on the day: on unfinished requests and on
 * things, without a line in their history; asks again which deadlines apply by the day; and tells what a day alone has made true.
 */
export class DayTurn {
  private readonly seen = new Map<string, string>();
  /** On which day deadlines were asked about last, by register. */
  private readonly asked = new Map<string, string>();
  private quarter = 0;

  constructor(private readonly house: House) {}

  /** Looks whether a day has turned anywhere, and computes anew, a few requests at a time. */
  async turn(): Promise<void> {
    const { db, clock } = this.house;
    // In every zone days turn at a quarter of an hour; in between nothing has to be read.
    const quarter = Math.floor(clock.now() / QUARTER);
    if (quarter === this.quarter) return;
    this.quarter = quarter;
    if (isTurned(db, clock.now()))
      await patiently(this.house, () => write(this.house, (work) => tellStandIns(work, beginDay(work))));
    for (const register of allRegisters(db)) {
      const releases = releasesInto(db, register.id).map((id) => releaseById(db, id).release);
      await this.turnDeadlines(register, releases);
      if (!releases.some(({ design }) => followsClock(design.fields))) continue;
      const today = dateAt(clock.now(), calendarOf(db, register.usual.deadline.calendar).zone);
      if (this.seen.get(register.id) === today) continue;
      const among = holdsThings(register) ? 'all' : 'unfinished';
      const picked = pickedBy(db, register.fields);
      await this.each(countedIn(register.id, among), (work, request) => {
        const { tx, now } = work;
        const fields = fieldsOf(tx, register, request);
        if (!followsClock(fields)) return;
        const facts = factsOfRequest(tx, request, register, now, { picked });
        const { values } = computedBy(fields)(request.values, new Set(), facts);
        const changes = changesBetween(fields, request.values, values);
        changeRequest(work, request, { kind: 'values', why: 'day', changes });
      });
      this.seen.set(register.id, today);
    }
    await tellOfDays(this.house);
  }

  /** Asks again which deadlines apply: where that hangs on the day, once a day; where on the moment, each quarter of an hour. */
  private async turnDeadlines(
    register: RegisterRow,
    releases: readonly { readonly design: FormDesign }[],
  ): Promise<void> {
    const { db, clock } = this.house;
    if (holdsThings(register)) return;
    const turns = new Set(releases.flatMap(({ design }) => design.deadline.deadlines.map(turnsWith)));
    if (!turns.has('day') && !turns.has('moment')) return;
    const today = dateAt(clock.now(), calendarOf(db, register.usual.deadline.calendar).zone);
    if (!turns.has('moment') && this.asked.get(register.id) === today) return;
    await this.each(countedIn(register.id, 'unfinished'), turnDeadlines);
    this.asked.set(register.id, today);
  }

  /** Goes through some requests, a few in each write. */
  private async each(
    among: ReturnType<typeof countedIn>,
    does: (work: Work, request: RequestRow) => void,
  ): Promise<void> {
    for await (const group of inGroups(eachRequest(this.house.db, among)))
      await patiently(this.house, () =>
        write(this.house, (work) => {
          for (const { id } of group) {
            const request = requestById(work.tx, id);
            if (request) does(work, request);
          }
        }),
      );
  }
}
