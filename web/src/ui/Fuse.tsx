import type { AnswerOf } from '@tolvek/contract';
import type { Words } from '@tolvek/words';
import { say, told } from '../wire/words.ts';

type FuseData = AnswerOf<'sheet'>['deadlines'][number]['fuse'];

const BURNED = {
  calm: 'bg-green',
  soon: 'bg-brass-mark',
  late: 'bg-brick',
  paused: 'bg-soft',
  done: 'bg-rule-strong',
} as const;
const WORDS = {
  calm: 'text-soft',
  soon: 'text-brass font-semibold',
  late: 'text-brick font-semibold',
  paused: 'text-soft',
  done: 'text-soft',
} as const;

const percent = (share: number): string => `${(share * 100).toFixed(2)}%`;

/**
 * The picture of a deadline: what has burned, pauses as gaps, ticks where reminders stand, the end
 * marked, the rest in words.
 */
export function Fuse({ fuse, for: what = null }: { fuse: FuseData; for?: Words | null }) {
  return (
    <div>
      <div className="relative h-3 min-w-24" aria-hidden="true">
        <i className="absolute inset-x-0 top-[5px] h-0.5 bg-rule-strong" />
        {fuse.burned.map((part) => (
          <i
            key={part.from}
            className={`absolute top-1 h-1 ${BURNED[fuse.state]}`}
            style={{ left: percent(part.from), width: percent(part.to - part.from) }}
          />
        ))}
        {fuse.ticks.map((tick) => (
          <b key={tick} className="absolute top-px h-2.5 w-px bg-soft" style={{ left: percent(tick) }} />
        ))}
        <u className="absolute top-0 right-0 h-3 w-[3px] bg-ink" />
      </div>
      <small className={`block text-[12.5px] leading-[1.15] whitespace-normal tabular-nums ${WORDS[fuse.state]}`}>
        {what === null ? told(fuse.words) : say('deadlines:of', { what, words: told(fuse.words) })}
      </small>
    </div>
  );
}
