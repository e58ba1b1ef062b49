import type { AnswerOf } from '@tolvek/contract';
import { Rich } from '../ui/Rich.tsx';
import { DeskMoment } from '../wire/DeskMoment.tsx';
import { say, told } from '../wire/words.ts';
import { Waits } from './Waits.tsx';

/** What somebody from outside was asked to handle or to decide; nothing where nothing is. */
export const GivenList = ({ given }: { given: AnswerOf<'frontDesk'>['given'] }) =>
  given.length === 0 ? null : (
    <>
      <h2 className="section-head mt-7">{say('desk:given')}</h2>
      <ul>
        {given.map(({ number, subject, form, handles, due, late }) => (
          <Waits
            key={number}
            title={told(subject)}
            to={`/given/${number}`}
            step={say(handles ? 'desk:openGiven' : 'desk:decide')}
            named={say(handles ? 'desk:openNamed' : 'desk:decideNamed', { number })}
          >
            <span className="text-soft">
              <span className="font-mono text-[13px]">{number}</span> · {form}
              {due === null ? null : (
                <>
                  {' · '}
                  <span className={late ? 'text-brick' : ''}>
                    <Rich text={late ? 'desk:wasDue' : 'desk:isDue'} filled={{ moment: <DeskMoment at={due} /> }} />
                  </span>
                </>
              )}
            </span>
          </Waits>
        ))}
      </ul>
    </>
  );
