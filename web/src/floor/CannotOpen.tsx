import { say } from '../wire/words.ts';

/** Names that are said; of more it is said how many. */
const SAID = 3;

/** Who can’t open what is for them, before its link goes out. */
export function CannotOpen({ names }: { names: readonly string[] }) {
  if (names.length === 0) return null;
  const [some, rest] = [names.slice(0, SAID), names.length - SAID];
  return (
    <p className="mt-1 border-brass-mark border-l-[3px] bg-brass-wash px-2.5 py-1">
      {rest > 0
        ? say('shared:cannotOpenMore', { names: some, count: rest })
        : say('shared:cannotOpen', { names: some, count: some.length })}
    </p>
  );
}
