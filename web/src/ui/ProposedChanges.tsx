import type { AnswerOf } from '@tolvek/contract';
import { say, told } from '../wire/words.ts';

/** What a change that waits would change: what stands there and what it would be, beside each other. */
export const ProposedChanges = ({
  proposal: { changes },
}: {
  proposal: Pick<AnswerOf<'follow'>['proposals'][number], 'changes'>;
}) => (
  <>
    <table className="mt-2 w-full table-fixed text-left">
      <thead>
        <tr className="border-b border-rule-strong text-[13px] text-soft">
          <th className="w-1/4 py-1 pr-2 font-normal">{say('common:answer')}</th>
          <th className="py-1 pr-2 font-normal">{say('common:counts')}</th>
          <th className="py-1 font-normal">{say('common:wouldBe')}</th>
        </tr>
      </thead>
      <tbody>
        {changes.map(({ label, before, after }) => (
          <tr key={label} className="border-b border-rule align-top">
            <td className="py-1.5 pr-2 text-soft">{label}</td>
            <td className="py-1.5 pr-2 break-words">{told(before) || '–'}</td>
            <td className="py-1.5 font-semibold break-words">{told(after) || '–'}</td>
          </tr>
        ))}
      </tbody>
    </table>
  </>
);
