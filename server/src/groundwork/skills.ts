import type { AnswerOf } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import type { Field } from '@tolvek/core/register';
import { and, asc } from 'drizzle-orm';
import { entriesInUse, skillOptions, skillsIn, skillsKept } from '../assignment/skills.ts';
import { groupNames, groupsOf, personById } from '../people/queries.ts';
import { todayAt } from '../people/settle.ts';
import type { Reader } from '../platform/database.ts';
import { allRegisters } from '../register/queries.ts';
import { openRequest } from '../request/open.ts';
import { requests } from '../request/tables.ts';

/** Entries that are looked at most. */
const MOST_ENTRIES = 5_000;

type Skills = AnswerOf<'skills'>;

const fieldsFor = (fields: readonly Field[], is: (field: Field) => boolean): Skills['skills'] =>
  fields.filter(is).map(({ key, label }) => ({ key, label }));

/** The registers that could hold skills: each entry names a person, and something to choose. */
function couldHold(db: Reader): Skills['registers'] {
  return allRegisters(db).flatMap(({ key, name, fields }) => {
    const parts = {
      person: fieldsFor(fields, ({ type }) => type.kind === 'person'),
      skill: fieldsFor(fields, ({ type }) => ['choice', 'choices', 'term', 'terms'].includes(type.kind)),
      level: fieldsFor(fields, ({ type }) => type.kind === 'number' || type.kind === 'level'),
      checked: fieldsFor(fields, ({ type }) => type.kind === 'date'),
    };
    return parts.person.length > 0 && parts.skill.length > 0 ? [{ key, name, ...parts }] : [];
  });
}

/** Who can do what, as far as its reader may see it. `now`: epoch ms. */
export function skillsView(db: Reader, viewer: Viewer, now: number): Skills {
  const registers = couldHold(db);
  const kept = skillsKept(db);
  const today = todayAt(db, now);
  if (!kept) return { source: null, registers, skills: [], people: [], isWhole: true, today };
  const { source, register } = kept;
  const rows = db
    .select()
    .from(requests)
    .where(and(entriesInUse(register)))
    .orderBy(asc(requests.createdAt), asc(requests.id))
    .limit(MOST_ENTRIES + 1)
    .all();
  const held = new Map<string, Skills['people'][number]['held'][number][]>();
  let isWhole = rows.length <= MOST_ENTRIES;
  for (const row of rows.slice(0, MOST_ENTRIES)) {
    const { relation, readable } = openRequest(db, row, viewer, 'list');
    const person = row.values[source.person];
    if (!relation.isDesk || !readable.has(source.person) || !readable.has(source.skill) || typeof person !== 'string') {
      isWhole = false;
      continue;
    }
    const of = held.get(person) ?? [];
    for (const { skill, level, checked } of skillsIn(source, row.values))
      of.push({
        ...{ number: row.number, skill },
        level: readable.has(source.level) ? level : null,
        checked: readable.has(source.checked) ? checked : null,
      });
    held.set(person, of);
  }
  const groups = groupNames(db);
  const people = [...held].flatMap(([id, of]): Skills['people'] => {
    const person = personById(db, id);
    if (!person?.active) return [];
    return [{ id, name: person.name, teams: groupsOf(db, id).map((key) => groups.get(key) ?? key), held: of }];
  });
  return {
    ...{ source: { register: register.key, name: register.name }, registers, isWhole, today },
    skills: [...skillOptions(db, kept)],
    people: people.sort((a, b) => (a.name < b.name ? -1 : 1)),
  };
}
