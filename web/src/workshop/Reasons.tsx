import type { Explanation } from '@tolvek/core/expression';
import type { Words } from '@tolvek/words';
import { told } from '../wire/words.ts';

interface Reason {
  readonly words: Words;
  readonly result: boolean | null;
  readonly parts: readonly Reason[];
}

/** Each part with its own verdict; a part with parts is told by them. */
export const Reasons = ({ of }: { of: Reason | Explanation }) =>
  of.parts.length === 0 ? (
    <p className="pl-4 text-soft">{told(of.words)}</p>
  ) : (
    <ul className="pl-4">
      {of.parts.map((part) => (
        <li key={told(part.words)} className="text-soft">
          {told(part.words)}
          {part.parts.length > 0 ? <Reasons of={part} /> : null}
        </li>
      ))}
    </ul>
  );
