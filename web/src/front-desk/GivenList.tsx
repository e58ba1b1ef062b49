import type { AnswerOf } from '@tolvek/contract';
import { say, told } from '../wire/words.ts';
import { Waits } from './Waits.tsx';
import { WhenDue } from './WhenDue.tsx';

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
              <WhenDue due={due} late={late} />
            </span>
          </Waits>
        ))}
      </ul>
    </>
  );
