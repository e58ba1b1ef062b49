import { createHash } from 'node:crypto';
import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { dateAt, wallClockAt } from '@tolvek/core/deadline';
import { isSame, own } from '@tolvek/core/own';
import { type KnownRecord, type Match, nameCompared, prepareMatching, type Viewer } from '@tolvek/core/people';
import {
  type Problem as FieldProblem,
  type FieldValue,
  isMailAddress,
  NOTHING_AROUND,
  type ProfileField,
  type RawAnswers,
  sayValue,
  typedFromCell,
  unguarded,
} from '@tolvek/core/register';
import { profileFieldsOf, readProfile } from '@tolvek/core/settings';
import { said, type Words } from '@tolvek/words';
import type { Language } from '@tolvek/words/speech';
import { isNull } from 'drizzle-orm';
import type { ProfileChanges } from '../people/commands.ts';
import { refuseOver, refuseRaising } from '../people/grants.ts';
import { keptOf } from '../people/kept.ts';
import { allGroups, personByEmail } from '../people/queries.ts';
import { addresses, memberships, people } from '../people/tables.ts';
import { canonicalJson } from '../platform/canonical.ts';
import type { Reader } from '../platform/database.ts';
import { Problem } from '../platform/problem.ts';
import { pickedBy } from '../request/facts.ts';
import { nameOf } from '../request/names.ts';
import { deskOf, profileDesignOf } from '../settings/queries.ts';
import { asFields } from './profile.ts';

type Told = AnswerOf<'lookAtPeople'>['rows'][number];
type PersonRow = typeof people.$inferSelect;

/** What a row does when it is imported. */
export interface RowDoes {
  readonly name?: string;
  readonly email?: string;
  readonly language?: Language;
  readonly active?: true;
  readonly profile: ProfileChanges;
  /** Groups they come into, by key. */
  readonly groups: readonly string[];
}

export interface PlannedRow {
  readonly told: Told;
  /** Null where the row does nothing. */
  readonly does: RowDoes | null;
}

export interface ImportPlan {
  readonly rows: readonly PlannedRow[];
  readonly gone: readonly PersonRow[];
  readonly seen: string;
}

/** What is known of all people, read once for all rows. */
interface Around {
  readonly db: Reader;
  readonly viewer: Viewer;
  readonly kind: PersonRow['kind'];
  readonly known: ReadonlyMap<string, PersonRow>;
  readonly addressesOf: ReadonlyMap<string, readonly string[]>;
  readonly groupsOf: ReadonlyMap<string, ReadonlySet<string>>;
  readonly groups: readonly { readonly key: string; readonly name: string }[];
  readonly fields: readonly ProfileField[];
  readonly reading: Parameters<typeof readProfile>[2];
  readonly shown: (field: ProfileField, value: FieldValue | null) => Words;
}

function aroundOf(db: Reader, viewer: Viewer, kind: PersonRow['kind'], now: number): Around {
  const collected = <Of>(rows: readonly { readonly id: string; readonly of: Of }[]): Map<string, Of[]> => {
    const found = new Map<string, Of[]>();
    for (const { id, of } of rows) found.set(id, [...(found.get(id) ?? []), of]);
    return found;
  };
  const rows = db.select().from(people).where(isNull(people.removedAt)).all();
  const inside = db.select({ id: memberships.personId, of: memberships.groupKey }).from(memberships).all();
  const fields = profileFieldsOf(profileDesignOf(db), kind);
  const { zone } = deskOf(db);
  const named = nameOf(db);
  return {
    ...{ db, viewer, kind, fields, groups: allGroups(db) },
    known: new Map(rows.filter(({ mergedInto }) => mergedInto === null).map((row) => [row.id, row])),
    addressesOf: collected(db.select({ id: addresses.personId, of: addresses.address }).from(addresses).all()),
    groupsOf: new Map([...collected(inside)].map(([id, keys]) => [id, new Set(keys)])),
    reading: {
      ...NOTHING_AROUND,
      ...{ today: dateAt(now, zone), now: wallClockAt(now, zone) },
      ...pickedBy(db, asFields(fields)),
    },
    shown: (field, value) => (value === null ? '' : sayValue(field, value, named)),
  };
}

/** What imported rows would change, as things are now. */
export function planImport(
  db: Reader,
  viewer: Viewer,
  { kind, rows, decided }: Pick<BodyOf<'importPeople'>, 'kind' | 'rows' | 'decided'>,
  now: number,
): ImportPlan {
  const around = aroundOf(db, viewer, kind, now);
  const records = [...around.known.values()].map(
    ({ id, kind: of, name, active }): KnownRecord => ({
      ...{ id, kind: of, name, active, addresses: around.addressesOf.get(id) ?? [] },
    }),
  );
  const match = prepareMatching(records, kind);
  const planned = rows.map((row, place) => {
    const cell = (column: string): string => unguarded(own(row, column) ?? '').trim();
    const name = cell('name') || [cell('given'), cell('family')].filter(Boolean).join(' ');
    const who = { name, email: cell('email').toLowerCase() };
    return planRow(around, who, cell, settled(match(who), own(decided, String(place))));
  });
  const meant = new Set(planned.flatMap(({ told }) => [told.person, ...told.candidates.map(({ id }) => id)]));
  const gone = [...around.known.values()].filter(
    ({ id, kind: of, active, source }) =>
      of === kind && active && source === 'local' && !meant.has(id) && id !== viewer.personId,
  );
  const content = [planned.map(({ told, does }) => [told.is, told.person, does]), gone.map(({ id }) => id)];
  return { rows: planned, gone, seen: createHash('sha256').update(canonicalJson(content)).digest('base64url') };
}

/** A doubtful row as somebody decided about it. */
const settled = (match: Match, decided: string | undefined): Match => {
  if (match.is !== 'doubtful' || decided === undefined) return match;
  if (decided === 'new') return match.why === 'other-address' || match.why === 'several' ? { is: 'new' } : match;
  return match.candidates.includes(decided) && match.why !== 'other-kind' ? { is: 'known', person: decided } : match;
};

function planRow(
  around: Around,
  { name, email }: { readonly name: string; readonly email: string },
  cell: (column: string) => string,
  match: Match,
): PlannedRow {
  const told = (is: Told['is'], more: Partial<Told> = {}): Told => ({
    ...{ is, name, email, person: null, why: null, candidates: [], changes: [], problems: [] },
    ...more,
  });
  if (match.is === 'wrong') return { told: told('wrong', { problems: [WRONG[match.why]] }), does: null };
  if (match.is === 'doubtful') {
    const candidates = match.candidates.flatMap((id) => {
      const row = around.known.get(id);
      return row ? [somebody(row)] : [];
    });
    return { told: told('doubtful', { why: match.why, candidates }), does: null };
  }
  const person = match.is === 'known' ? around.known.get(match.person) : undefined;
  const problems: FieldProblem[] = [];
  const does = whatRowDoes(around, { name, email, cell, person }, problems);
  if (problems.length > 0)
    return { told: told('wrong', { person: person?.id ?? null, problems: problems.map((each) => each) }), does: null };
  const kept = person ? keptOf(around.db, person) : null;
  const touches = [...Object.keys(does), ...Object.keys(does.profile).map((key) => `profile.${key}`)];
  if (kept && touches.some((each) => kept.has(each)))
    return { told: told('wrong', { person: person?.id ?? null, problems: [KEPT] }), does: null };
  const changes = person ? changesIn(around, person, does) : [];
  if (!person) return { told: told('new', { changes: changesIn(around, undefined, does) }), does };
  return changes.length === 0
    ? { told: told('same', { person: person.id }), does: null }
    : { told: told('changed', { person: person.id, changes }), does };
}

const WRONG: Readonly<Record<Extract<Match, { is: 'wrong' }>['why'], FieldProblem>> = {
  'no-name': { field: 'name', message: said('ground:rowNoName'), fix: said('ground:rowCorrect') },
  'no-address': { field: 'email', message: said('ground:rowNoAddress'), fix: said('ground:rowCorrect') },
  twice: { field: 'email', message: said('ground:rowTwice'), fix: said('ground:rowCorrect') },
};

const KEPT: FieldProblem = { field: 'name', message: said('ground:rowKept'), fix: said('ground:rowKeptFix') };

export const somebody = ({ id, name, email, active }: PersonRow) => ({ id, name, email, active });

const LANGUAGE: Readonly<Record<string, Language>> = {
  ...{ en: 'en', english: 'en', englisch: 'en', de: 'de', german: 'de', deutsch: 'de' },
};

interface RowRead {
  readonly name: string;
  readonly email: string;
  readonly cell: (column: string) => string;
  readonly person: PersonRow | undefined;
}

/** What a row does to somebody, or what somebody new is; what is wrong with it is added to `problems`. */
function whatRowDoes(around: Around, { name, email, cell, person }: RowRead, problems: FieldProblem[]): RowDoes {
  const { db, viewer } = around;
  const isOther = person !== undefined && nameCompared(person.name) !== nameCompared(name);
  const had = person ? (around.addressesOf.get(person.id) ?? []) : [];
  const isNewAddress = email !== '' && !had.includes(email);
  if (isNewAddress && !isMailAddress(email))
    problems.push({ field: 'email', message: said('start:badAddress'), fix: said('start:likeAddress') });
  else if (isNewAddress && personByEmail(db, email))
    problems.push({ field: 'email', message: said('ground:rowTaken'), fix: said('ground:rowCorrect') });
  if (isNewAddress && person) allowed(problems, 'email', () => refuseOver(db, person, viewer));
  const spoken = cell('language').toLowerCase();
  const language = own(LANGUAGE, spoken);
  if (spoken !== '' && language === undefined)
    problems.push({ field: 'language', message: said('ground:rowLanguage'), fix: said('ground:rowLanguageFix') });
  return {
    ...(person === undefined || isOther ? { name } : {}),
    ...(isNewAddress ? { email } : {}),
    ...(language !== undefined && language !== person?.language ? { language } : {}),
    ...(person && !person.active ? { active: true as const } : {}),
    profile: profileIn(around, cell, person, problems),
    groups: groupsIn(around, cell('groups'), person, problems),
  };
}

function profileIn(
  { db, fields, reading }: Around,
  cell: (column: string) => string,
  person: PersonRow | undefined,
  problems: FieldProblem[],
): ProfileChanges {
  const raw: RawAnswers = Object.fromEntries(
    fields.flatMap((field) => {
      const written = cell(`profile.${field.key}`);
      if (written === '') return [];
      // Somebody is named by an address as well, which only one has.
      const byAddress = field.type.kind === 'person' ? personByEmail(db, written)?.id : undefined;
      return [[field.key, byAddress ?? typedFromCell(field, written, reading)]];
    }),
  );
  const read = readProfile(fields, raw, reading);
  problems.push(...read.problems);
  return Object.fromEntries(
    Object.entries(read.values).filter(([key, value]) => !isSame(value, own(person?.profile ?? {}, key) ?? null)),
  );
}

function groupsIn(
  { db, viewer, groups, groupsOf }: Around,
  written: string,
  person: PersonRow | undefined,
  problems: FieldProblem[],
): readonly string[] {
  const names = written
    .split(/[;,\n]/)
    .map((each) => each.trim())
    .filter(Boolean);
  const inside = person ? groupsOf.get(person.id) : undefined;
  const keys = names.flatMap((name) => {
    const group = groups.find((each) => each.name.toLowerCase() === name.toLowerCase() || each.key === name);
    if (!group)
      problems.push({
        ...{ field: 'groups', message: said('ground:rowNoGroup', { name }), fix: said('ground:rowNoGroupFix') },
      });
    return group && !inside?.has(group.key) ? [group.key] : [];
  });
  for (const key of keys) allowed(problems, 'groups', () => refuseRaising(db, viewer, key));
  return [...new Set(keys)];
}

/** What whoever imports may not do is told of the row. */
function allowed(problems: FieldProblem[], field: string, check: () => void): void {
  try {
    check();
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    const { happened, now } = error.said;
    problems.push({ field, message: happened, fix: now });
  }
}

/** What a row does, each with what was and what will be. */
function changesIn(around: Around, person: PersonRow | undefined, does: RowDoes): Told['changes'] {
  const groupName = (key: string): string => around.groups.find((each) => each.key === key)?.name ?? key;
  return [
    ...(person && does.name !== undefined
      ? [{ what: said('ground:set.name'), before: person.name, after: does.name }]
      : []),
    ...(person && does.email !== undefined
      ? [{ what: said('ground:set.email'), before: person.email, after: does.email }]
      : []),
    ...(does.language !== undefined
      ? [
          {
            what: said('ground:set.language'),
            before: person?.language ? said(`ground:reads.${person.language}`) : '',
            after: said(`ground:reads.${does.language}`),
          },
        ]
      : []),
    ...(does.active
      ? [{ what: said('ground:state'), before: said('ground:state.inactive'), after: said('ground:state.active') }]
      : []),
    ...around.fields.flatMap((field) => {
      const value = own(does.profile, field.key);
      return value === undefined
        ? []
        : [
            {
              what: field.label,
              before: around.shown(field, own(person?.profile ?? {}, field.key) ?? null),
              after: around.shown(field, value),
            },
          ];
    }),
    ...does.groups.map((key) => ({ what: said('ground:group'), before: '', after: groupName(key) })),
  ];
}
