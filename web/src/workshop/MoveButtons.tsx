import { ArrowDown, ArrowUp } from 'lucide-react';

const LOOK = 'inline-flex size-6 shrink-0 items-center justify-center text-soft disabled:invisible';

/** Two small arrows that move something earlier or later; the one that can’t is not there. */
export const MoveButtons = ({
  index,
  of,
  words,
  move,
}: {
  index: number;
  of: number;
  words: readonly [earlier: string, later: string];
  move: (way: -1 | 1) => void;
}) => (
  <>
    <button type="button" className={LOOK} aria-label={words[0]} disabled={index === 0} onClick={() => move(-1)}>
      <ArrowUp size={14} />
    </button>
    <button type="button" className={LOOK} aria-label={words[1]} disabled={index === of - 1} onClick={() => move(1)}>
      <ArrowDown size={14} />
    </button>
  </>
);
