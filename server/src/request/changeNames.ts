import type { ChangeNames, RequestChange } from '@tolvek/core/request';
import { calendarNamed } from '../calendar/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { RegisterRow } from '../register/queries.ts';

/** The people whom a change names, by id. */
export function peopleIn(change: RequestChange | null): readonly string[] {
  if (change?.kind === 'handler') return change.to === null ? [] : [change.to];
  if (change?.kind === 'shared' || change?.kind === 'unshared') return personIn(change.with);
  if (change?.kind === 'decided') return personIn(change.insteadOf ?? '');
  if (change?.kind === 'silent' || change?.kind === 'handed')
    return change.gives.flatMap(({ from, to }) => [...personIn(from), ...personIn(to)]);
  if (change?.kind === 'links-ended' || change?.kind === 'link-sent' || change?.kind === 'undelivered')
    return [change.of];
  if (change?.kind === 'followed') return change.who ?? [];
  if (change?.kind === 'values') return change.why === 'updated' && change.by !== undefined ? [change.by] : [];
  return change?.kind === 'seat' || change?.kind === 'same-person' ? [change.from, change.to] : [];
}

const personIn = (word: string): readonly string[] => (word.startsWith('@') ? [word.slice(1)] : []);

/** What changes of requests of a register name, as it is called now. `people` by id, `groups` by key. */
export const changeNames = (
  db: Reader,
  { stages }: Pick<RegisterRow, 'stages'>,
  people: ReadonlyMap<string, string>,
  groups: ReadonlyMap<string, string>,
): ChangeNames => ({
  stage: (key) => stages.find((stage) => stage.key === key)?.label ?? key,
  person: (id) => people.get(id) ?? '',
  group: (key) => groups.get(key) ?? key,
  calendar: (key) => calendarNamed(db, key),
});
