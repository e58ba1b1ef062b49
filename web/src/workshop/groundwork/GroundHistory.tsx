import type { AnswerOf } from '@tolvek/contract';
import { say, told } from '../../wire/words.ts';
import { Byline } from './States.tsx';

/** What was set of a person or a group, by whom and when. */
export const GroundHistory = ({ lines }: { lines: AnswerOf<'person'>['history'] }) => (
  <>
    <h3 className="section-head mt-7">{say('ground:whatWasSet')}</h3>
    <ul>
      {lines.map((line) => (
        <li key={`${line.at} ${told(line.words)}`} className="border-b border-rule py-1.5">
          {told(line.words)}
          <Byline {...line} />
        </li>
      ))}
      {lines.length === 0 ? <li className="py-1.5 text-soft">{say('ground:nothingSet')}</li> : null}
    </ul>
  </>
);
