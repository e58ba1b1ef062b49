import { say } from '../../wire/words.ts';
import type { sinceOf } from './liveRows.ts';

/** What has changed in a view since its rows were read: nothing jumps, until it is asked for. */
export function News({ since, show }: { since: ReturnType<typeof sinceOf>; show: () => void }) {
  const { came, away, moved, isMuch } = since;
  const parts = isMuch
    ? [say('views:news.much')]
    : [
        ...(came > 0 ? [say('views:news.came', { count: came })] : []),
        ...(moved > 0 ? [say('views:news.moved', { count: moved })] : []),
        ...(away.size > 0 ? [say('views:news.gone', { count: away.size })] : []),
      ];
  return (
    <span role="status" className="text-[13px]">
      {parts.length > 0 ? (
        <button
          type="button"
          className="min-h-[24px] font-semibold text-green underline decoration-dotted underline-offset-[3px]"
          onClick={show}
        >
          {say('views:news.show', { news: parts.join(', ') })}
        </button>
      ) : null}
    </span>
  );
}
