import type { AnswerOf } from '@tolvek/contract';
import { say, told } from '../../wire/words.ts';

/** What was set of a person or a group, by whom and when. */
export const GroundHistory = ({ lines }: { lines: AnswerOf<'person'>['history'] }) => (
  <>
    <h3 className="section-head mt-7">{say('ground:whatWasSet')}</h3>
    <ul>
      {lines.map((line) => (
        <li key={`${line.at} ${told(line.words)}`} className="border-b border-rule py-1.5">
          {told(line.words)}
          <span className="block text-[12.5px] text-soft">
            {line.by === '' ? say('ground:byStart', { at: line.at }) : say('ground:byAt', { by: line.by, at: line.at })}
          </span>
        </li>
      ))}
      {lines.length === 0 ? <li className="py-1.5 text-soft">{say('ground:nothingSet')}</li> : null}
    </ul>
  </>
);
