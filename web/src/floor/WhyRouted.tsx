import type { AnswerOf } from '@tolvek/contract';
import { RowReasons } from '../ui/RowReasons.tsx';
import { say, told } from '../wire/words.ts';

interface WhyRoutedProps {
  readonly routing: NonNullable<AnswerOf<'sheet'>['routing']>;
  /** The note of the row that is used stands above already. */
  readonly isUsedNamed?: boolean;
}

/** What routing came to, and which row of the table decided. */
export const WhyRouted = ({ routing, isUsedNamed = false }: WhyRoutedProps) => (
  <div className="mt-2">
    <p className="mb-2 text-soft">{told(routing.outcome)}</p>
    {routing.row === null ? (
      <p>{say('floor:routingHidden')}</p>
    ) : (
      <RowReasons rows={routing.rows} isUsedNamed={isUsedNamed} />
    )}
  </div>
);
