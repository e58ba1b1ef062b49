import type { AnswerOf, BodyOf } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import {
  type Field,
  type Problem as FieldProblem,
  type RawAnswers,
  type RequestFacts,
  typedFromCell,
  unguarded,
} from '@tolvek/core/register';
import { said } from '@tolvek/words';
import { currentRelease, formByKey, type ReleaseRow, registerOfForm, releaseById } from '../form/queries.ts';
import { type PersonRow, personByEmail, personById, personByName, staffIn } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { once } from '../platform/idempotency.ts';
import { addJob, type Doing, isEnded, type JobRow } from '../platform/longJobs.ts';
import { notFound } from '../platform/problem.ts';
import { inGroups } from '../platform/turns.ts';
import { by, type Work, write } from '../platform/work.ts';
import type { RegisterRow } from '../register/queries.ts';
import { stageAtFirst } from '../request/change.ts';
import { type Beside, claimed } from '../request/claims.ts';
import { factsFor, type Picked } from '../request/facts.ts';
import { numberToCome } from '../request/nextNumber.ts';
import { numbered } from '../request/numbers.ts';
import { requestsByNumber } from '../request/references.ts';
import { UNKNOWN } from './admission.ts';
import { type Arriving, admitted, type Considered, consider } from './arrive.ts';

type Row = BodyOf<'takeInRows'>['rows'][number];
type Told = AnswerOf<'takeInRows'>['rows'][number];

/** Rows that are to come in by a release, and all that is the same for each of them. */
interface Sheet {
  readonly release: ReleaseRow;
  readonly register: RegisterRow;
  readonly importer: PersonRow;
  readonly picked: Picked;
  readonly known: RequestFacts;
}

/** @throws Problem 404 when the form has no release, or whoever takes the rows in is gone. */
function sheetOf(db: Reader, by: string, release: ReleaseRow | undefined, rows: readonly Row[], now: number): Sheet {
  if (!release) throw notFound('release');
  const importer = personById(db, by);
  if (!importer) throw notFound('person');
  const { design, formId } = release;
  const told = factsFor(db, { door: { kind: 'staff' }, design, requester: importer, now });
  const picked = { people: staffIn(db, 'all'), vocabularies: told.vocabularies };
  const known = { ...told, ...picked, references: requestsByNumber(db, design.fields, rows) };
  return { release, register: registerOfForm(db, formId), importer, picked, known };
}

type ConsideredFine = Extract<Considered, { is: 'fine' }>;

type Fine = { readonly arriving: Arriving; readonly requester: PersonRow; readonly considered: ConsideredFine };

/** What a row comes to: a request that could arrive, or why not. */
function considerRow(
  db: Reader,
  { release, importer, picked, known }: Sheet,
  row: Row,
  now: number,
  beside?: Beside,
): { readonly fine: Fine } | { readonly problems: readonly FieldProblem[] } {
  const typed = row.requester.trim();
  const requester = typed === '' ? importer : (personByEmail(db, typed) ?? personByName(db, typed));
  if (!requester?.active)
    return {
      problems: [
        {
          field: 'requester',
          message: said('work:unknownRequester', { typed }),
          fix: said('work:correctRequester'),
        },
      ],
    };
  const arriving: Arriving = {
    ...{ through: { by: 'sheet of rows' }, release, door: null, comesBy: 'staff', asks: requester },
    ...{ admits: { ...UNKNOWN, kind: requester.kind }, answers: answersIn(row, release.design.fields, known) },
    ...{ picked, ...(beside ? { beside } : {}) },
  };
  const considered = consider(db, arriving, now);
  if (considered.is === 'fine') return { fine: { arriving, requester, considered } };
  return { problems: considered.is === 'wrong' ? considered.problems : [] };
}

const counted = (rows: readonly Told[]) => {
  const bad = rows.filter((row) => row.number === null).length;
  return { good: rows.length - bad, bad, rows: [...rows] };
};

/**
 * What would become of rows of a sheet, by the same way as requests from a door: completed, compared with what
 * is held, here and in the rows before, routed and planned. Stores nothing.
 *
 * @throws Problem 404 when the form has no release.
 */
export function lookAtRows(
  db: Reader,
  now: number,
  viewer: Viewer,
  formKey: string,
  rows: readonly Row[],
): AnswerOf<'takeInRows'> {
  const form = formByKey(db, formKey);
  const sheet = sheetOf(db, viewer.personId, form && currentRelease(db, form), rows, now);
  const { register } = sheet;
  // A running number is another for each, though each looks at the same that is to come.
  const numbering = new Set(numbered(register.fields).map(({ key }) => key));
  const rules = register.unique.filter(({ fields }) => !fields.some((key) => numbering.has(key)));
  const held = new Map<string, { readonly number: string; readonly requesterId: string }>();
  const told: Told[] = [];
  let good = 0;
  for (const row of rows) {
    const found = considerRow(db, sheet, row, now, (rule, value) => held.get(`${rule} ${value}`));
    if ('problems' in found) {
      told.push(refused(found.problems));
      continue;
    }
    const { requester, considered } = found.fine;
    const number = numberToCome(register, good);
    const stage = stageAtFirst(register, considered.taken);
    for (const { ruleId, value } of claimed({ ...register, unique: rules }, stage, considered.taken.values))
      held.set(`${ruleId} ${value}`, { number, requesterId: requester.id });
    good += 1;
    told.push({ number, problems: [] });
  }
  return { applied: false, ...counted(told), job: null };
}

/** What rows are taken in by, as long work. */
interface About {
  readonly release: string;
  readonly rows: readonly Row[];
}

/** What has become of the rows so far: those that are told have been looked at. */
interface Taken {
  readonly rows: readonly Told[];
}

/**
 * Has rows of a sheet taken in, as long work; the same key gives the same work. Returns its id.
 *
 * @throws Problem 404 when the form has no release.
 */
export function takeInLater(house: House, viewer: Viewer, formKey: string, rows: readonly Row[], key: string): string {
  const { job } = write(house, ({ tx, now }) =>
    once(tx, { key, scope: `rows ${formKey} ${viewer.personId}`, content: rows, now }, () => {
      const form = formByKey(tx, formKey);
      const release = form && currentRelease(tx, form);
      if (!release) throw notFound('release');
      const about: About = { release: release.id, rows };
      return { job: addJob(tx, { kind: 'rows', about, by: viewer.personId, of: rows.length, now }) };
    }),
  );
  house.wakeJobs();
  return job;
}

/** What has become of rows, by the job that takes them in. */
export function takenRows(job: JobRow): AnswerOf<'takeInRows'> {
  const rows = (job.result as Taken | null)?.rows ?? [];
  return { applied: true, ...counted(rows), job: isEnded(job) ? null : job.id };
}

/** Takes rows in, a few at a time; after a restart it goes on behind those that were. */
export async function takeInRows(house: House, doing: Doing<About>): Promise<void> {
  const { db, clock } = house;
  const { rows } = doing.about;
  const { release } = releaseById(db, doing.about.release);
  const sheet = sheetOf(db, doing.by, release, rows, clock.now());
  let told = (doing.before as Taken | null)?.rows ?? [];
  await doing.step(told.length, () => ({ rows: told }) satisfies Taken);
  for await (const group of inGroups(rows.slice(told.length))) {
    let here: readonly Told[] = [];
    await doing.step(group.length, (work) => {
      here = group.map((row) => {
        const found = considerRow(work.tx, sheet, row, work.now);
        return 'problems' in found ? refused(found.problems) : admittedRow(work, sheet, found.fine);
      });
      return { rows: [...told, ...here] } satisfies Taken;
    });
    told = [...told, ...here];
  }
}

function admittedRow(work: Work, { importer }: Sheet, { arriving, requester, considered }: Fine): Told {
  const { number } = admitted(by(work, importer.id), arriving, considered, {
    ...{ doorId: null, requesterId: requester.id },
    ...(importer.id === requester.id ? {} : { enteredById: importer.id }),
  });
  return { number, problems: [] };
}

const refused = (problems: readonly FieldProblem[]): Told => ({
  number: null,
  problems: problems.map(({ field, message, fix }) => ({ field, message, fix })),
});

/** The cells of a row as answers; empty ones are no answers. */
function answersIn(row: Row, fields: readonly Field[], around: RequestFacts): RawAnswers {
  return Object.fromEntries(
    Object.entries(row.cells).flatMap(([key, cell]) => {
      const field = fields.find((each) => each.key === key);
      const answer = field ? typedFromCell(field, unguarded(cell), around) : cell;
      return answer === null || answer === '' ? [] : [[key, answer]];
    }),
  );
}
