import type { Words } from '@tolvek/words';
import { say, told } from '../wire/words.ts';

/** A change in words; one of a form says whether it reaches the register. */
interface Told {
  readonly at: string;
  readonly words: Words;
  readonly before: Words;
  readonly after: Words;
  readonly reaches?: 'form' | 'register';
}

/**
 * What differs between two states of a form or a register: in a sentence, and side by side where both sides have
 * words.
 */
export function ChangeList({ changes }: { changes: readonly Told[] }) {
  return (
    <ul className="mt-1">
      {changes.map((change) => (
        <li key={change.at + told(change.words)} className="border-b border-rule py-1.5">
          {told(change.words)}
          {change.reaches === 'register' ? (
            <span className="ml-2 text-[12.5px] text-brass">{say('workshop:reachesRegister')}</span>
          ) : null}
          {change.before !== '' || change.after !== '' ? (
            <details className="text-[13px]">
              <summary className="text-green">{say('workshop:sideBySide')}</summary>
              <div className="mt-1 grid grid-cols-2 gap-3">
                <p className="border-l-2 border-brick pl-2 break-words whitespace-pre-line">
                  {change.before ? told(change.before) : <span className="text-soft">{say('workshop:nothing')}</span>}
                </p>
                <p className="border-l-2 border-green pl-2 break-words whitespace-pre-line">
                  {change.after ? told(change.after) : <span className="text-soft">{say('workshop:nothing')}</span>}
                </p>
              </div>
            </details>
          ) : null}
        </li>
      ))}
    </ul>
  );
}
