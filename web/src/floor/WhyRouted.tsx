import type { AnswerOf } from '@tolvek/contract';
import { RowReasons } from '../ui/RowReasons.tsx';

/** What routing came to, and which row of the table decided. */
export const WhyRouted = ({ routing }: { routing: NonNullable<AnswerOf<'sheet'>['routing']> }) => (
  <div className="mt-2">
    <p className="mb-2 text-soft">{routing.outcome}</p>
    {routing.row === null ? (
      <p>Which row of the routing table it was rests on fields that you may not read.</p>
    ) : (
      <RowReasons rows={routing.rows} />
    )}
  </div>
);
