import type { Field } from '@tolvek/core/register';
import { calledIn, type ViewDesign } from '@tolvek/core/view';
import { say, told } from '../../wire/words.ts';
import { moved, originOf, shows, subjectsFor } from './viewDraft.ts';

interface ViewColumnsProps {
  readonly view: ViewDesign;
  readonly fields: readonly Field[];
  readonly set: (view: ViewDesign) => void;
}

/** What stands in the rows, in which order, and what else could. */
export function ViewColumns({ view, fields, set }: ViewColumnsProps) {
  const shown = view.columns.map(({ of }) => of);
  const others = subjectsFor('columns', fields).filter((subject) => !shown.includes(subject));
  const called = (subject: string): string => told(calledIn(subject, fields));
  const line = (subject: string) => (
    <>
      <span>{called(subject)}</span>
      <i className="subject text-[12.5px] text-brass italic">{say(`views:origin.${originOf(subject, fields)}`)}</i>
    </>
  );
  return (
    <div className="grid grid-cols-2 gap-x-6">
      <section>
        <h3 className="mb-1 text-[12.5px] font-semibold text-soft">{say('views:chosenColumns')}</h3>
        <ul>
          {shown.map((subject, place) => (
            <li key={subject} className="flex min-h-7 items-baseline gap-2 border-b border-rule">
              {line(subject)}
              <span className="ml-auto flex flex-none">
                {(
                  [
                    ['moveLeft', '↑', -1],
                    ['moveRight', '↓', 1],
                  ] as const
                ).map(([name, sign, by]) => (
                  <button
                    key={name}
                    type="button"
                    className="size-[24px] flex-none text-soft hover:text-ink disabled:opacity-40"
                    aria-label={say(`views:${name}`, { what: called(subject) })}
                    disabled={place + by < 0 || place + by >= shown.length}
                    onClick={() => set(moved(view, subject, by))}
                  >
                    {sign}
                  </button>
                ))}
                <button
                  type="button"
                  className="size-[24px] flex-none text-soft hover:text-brick"
                  aria-label={say('views:hideColumn', { what: called(subject) })}
                  onClick={() => set(shows(view, subject, false))}
                >
                  ×
                </button>
              </span>
            </li>
          ))}
        </ul>
      </section>
      <section>
        <h3 className="mb-1 text-[12.5px] font-semibold text-soft">{say('views:otherColumns')}</h3>
        <ul>
          {others.map((subject) => (
            <li key={subject} className="flex min-h-7 items-baseline gap-2 border-b border-rule">
              {line(subject)}
              <button
                type="button"
                className="ml-auto size-[24px] flex-none text-green"
                aria-label={say('views:showColumn', { what: called(subject) })}
                onClick={() => set(shows(view, subject, true))}
              >
                +
              </button>
            </li>
          ))}
        </ul>
      </section>
      <p className="col-span-2 mt-2 text-[13px] text-soft">{say('views:columnsHint')}</p>
    </div>
  );
}
