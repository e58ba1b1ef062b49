import type { Viewer } from '@tolvek/core/people';
import { cellOf, type NameOf } from '@tolvek/core/register';
import { profileFieldsOf } from '@tolvek/core/settings';
import type { Response } from 'express';
import { listPeople, type Place } from '../people/lists.ts';
import { type PersonRow, personById, spokenTo, staffIn } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import { inTurns } from '../platform/turns.ts';
import { nameOf } from '../request/names.ts';
import { profileDesignOf } from '../settings/queries.ts';
import { csvLine } from '../view/takeOut.ts';
import { allVocabularies } from '../vocabulary/queries.ts';

/** People as lines of a sheet: what every one of them has, and the fields of their profile. */
function* linesOf(db: Reader, kind: PersonRow['kind'], named: NameOf): Generator<readonly string[]> {
  const fields = profileFieldsOf(profileDesignOf(db), kind);
  const around = { vocabularies: allVocabularies(db), people: staffIn(db, 'all'), references: [] };
  for (let after: Place | null = null; ; ) {
    const { people, next } = listPeople(db, { kind, state: 'active' }, after);
    for (const { name, email, language, groups, profile } of people)
      yield [
        ...[name, email, language ?? '', groups.map((group) => group.name).join('; ')],
        ...fields.map((field) => {
          const value = profile[field.key];
          if (value === undefined) return '';
          // A person is named by an address, which only one has.
          if (field.type.kind === 'person') return personById(db, String(value))?.email ?? '';
          return cellOf(field, value, named, around);
        }),
      ];
    if (!next) return;
    after = next;
  }
}

/** Sends active staff or contacts as a CSV file, which can be imported again. */
export async function sendPeople(
  db: Reader,
  viewer: Viewer,
  kind: PersonRow['kind'],
  response: Response,
): Promise<void> {
  const { say } = spokenTo(db, viewer.personId);
  const fields = profileFieldsOf(profileDesignOf(db), kind);
  const fixed = [say('sheets:person.name'), say('sheets:person.email'), say('sheets:person.language')];
  response.set({
    'Content-Type': 'text/csv; charset=utf-8',
    'Content-Disposition': `attachment; filename="${kind === 'staff' ? 'people' : 'contacts'}.csv"`,
    'Cache-Control': 'private, no-store',
  });
  response.write(`\uFEFF${csvLine([...fixed, say('sheets:person.groups'), ...fields.map(({ label }) => label)])}`);
  for await (const line of inTurns(linesOf(db, kind, nameOf(db)))) {
    if (response.destroyed) return;
    response.write(csvLine(line));
  }
  response.end();
}
