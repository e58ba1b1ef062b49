import type { AnswerOf } from '@tolvek/contract';
import { Fuse } from '../ui/Fuse.tsx';
import { Why } from '../ui/Why.tsx';
import { say, told } from '../wire/words.ts';

type Deadline = AnswerOf<'sheet'>['deadlines'][number];

/** All that a request is due by, the nearest first; how each moment was reckoned, and what will ring for it. */
export function Deadlines({ deadlines }: { deadlines: readonly Deadline[] }) {
  const isOnly = deadlines.length === 1;
  return deadlines.map((deadline) => {
    const { key, name, due, fuse, why, rings, state } = deadline;
    return (
      <div key={key} className={`mb-1.5 ${state === 'over' ? 'text-soft' : ''}`}>
        {isOnly ? say('floor:dueAt', { due }) : say('floor:namedDue', { name: told(name), due })}{' '}
        <Why about={isOnly ? say('floor:whyDue') : say('floor:whyDueOf', { name: told(name) })}>
          <ul className="list-disc pl-4">
            {why.map((line) => (
              <li key={told(line)}>{told(line)}</li>
            ))}
          </ul>
          {rings.length > 0 ? (
            <>
              <p className="mt-2 font-semibold">{say('floor:stillRings')}</p>
              <ul className="list-disc pl-4">
                {rings.map(({ at, what }) => (
                  <li key={at + told(what)}>{say('floor:ringsAt', { at, what: told(what) })}</li>
                ))}
              </ul>
            </>
          ) : null}
        </Why>
        <div className="mt-1 max-w-56">
          <Fuse fuse={fuse} />
        </div>
      </div>
    );
  });
}
