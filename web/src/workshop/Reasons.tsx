import type { Explanation } from '@tolvek/core/expression';

interface Reason {
  readonly words: string;
  readonly result: boolean | null;
  readonly parts: readonly Reason[];
}

/** Each part with its own verdict; a part with parts is told by them. */
export const Reasons = ({ of }: { of: Reason | Explanation }) =>
  of.parts.length === 0 ? (
    <p className="pl-4 text-soft">{of.words}</p>
  ) : (
    <ul className="pl-4">
      {of.parts.map((part) => (
        <li key={part.words} className="text-soft">
          {part.words}
          {part.parts.length > 0 ? <Reasons of={part} /> : null}
        </li>
      ))}
    </ul>
  );
