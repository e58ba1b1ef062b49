import type { AnswerOf } from '@tolvek/contract';
import { type DoorDesign, isMeant } from '@tolvek/core/door';
import { doorDesign } from '../door/queries.ts';
import { registerOfForm } from '../form/queries.ts';
import { peopleInGroups } from '../people/lists.ts';
import { toldOf } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';

/** People who are named of each kind. */
const NAMED = 8;

/** Whom a door would mean today, were it as it is written, beside whom it means by what is in force. */
export function doorReach(db: Reader, slug: string, written: DoorDesign): AnswerOf<'tryDoor'> {
  const { door } = doorDesign(db, slug);
  const everybody = { ...written, audience: { ...written.audience, outOf: [] } };
  const reach = { staff: 0, contacts: 0 };
  const [comeIn, dropOut, leftOut]: [string[], string[], string[]] = [[], [], []];
  const audiences = [written.audience, door.design.audience];
  const register = registerOfForm(db, door.formId).id;
  for (const { name, ...person } of peopleInGroups(db, null)) {
    const who = { ...person, ...toldOf(db, audiences, person.personId, () => register) };
    const [is, was] = [isMeant(written, who), isMeant(door.design, who)];
    if (is) reach[who.kind === 'staff' ? 'staff' : 'contacts'] += 1;
    else if (isMeant(everybody, who)) leftOut.push(name);
    if (is && !was) comeIn.push(name);
    if (was && !is) dropOut.push(name);
  }
  const some = (names: readonly string[]) => ({ n: names.length, names: names.slice(0, NAMED) });
  return { ...reach, comeIn: some(comeIn), dropOut: some(dropOut), leftOut: some(leftOut) };
}
