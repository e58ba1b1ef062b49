import type { WorkingCalendar } from '@tolvek/core/deadline';
import type { FormDesign } from '@tolvek/core/form';
import type { NameOf } from '@tolvek/core/register';
import type { Language } from '@tolvek/words/speech';
import { calendarOf } from '../calendar/queries.ts';
import { releaseById } from '../form/queries.ts';
import type { Reader } from '../platform/database.ts';
import { type Registers, registersOnce } from '../register/queries.ts';
import { nameOf } from '../request/names.ts';

/** What many requests have in common. */
interface ReadOnce {
  readonly registers: Registers;
  readonly form: (releaseId: string) => { readonly design: FormDesign; readonly calendar: WorkingCalendar };
  /** A working calendar by its key. */
  readonly calendarBy: (key: string) => WorkingCalendar;
  readonly nameOf: NameOf;
}

/** Reads what many requests have in common once for all of them: for a page, or a run over many; terms in a language. */
export function readOnce(db: Reader, registers = registersOnce(db), language: Language | null = null): ReadOnce {
  const calendarBy = eachOnce((key) => calendarOf(db, key));
  return {
    registers,
    form: eachOnce((releaseId) => {
      const { design } = releaseById(db, releaseId).release;
      return { design, calendar: calendarBy(design.deadline.calendar) };
    }),
    calendarBy,
    nameOf: eachNameOnce(nameOf(db, registers, language)),
  };
}

/** Remembers what was found for a key. */
function eachOnce<T>(find: (key: string) => T): (key: string) => T {
  const found = new Map<string, T>();
  return (key) => {
    const known = found.get(key) ?? find(key);
    found.set(key, known);
    return known;
  };
}

/** Remembers what something is called, by each way it is shown. */
function eachNameOnce(find: NameOf): NameOf {
  const found = new Map<string, string | undefined>();
  return (id, by) => {
    const key = by ? `${id} ${by.join(' ')}` : id;
    if (!found.has(key)) found.set(key, find(id, by));
    return found.get(key);
  };
}
