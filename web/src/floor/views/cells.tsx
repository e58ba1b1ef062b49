import type { AnswerOf } from '@tolvek/contract';
import { isFact, type ViewDesign } from '@tolvek/core/view';
import type { Words } from '@tolvek/words';
import type { ReactNode } from 'react';
import { Fuse } from '../../ui/Fuse.tsx';
import { StageMark } from '../../ui/StageMark.tsx';
import { say, told } from '../../wire/words.ts';

/** What stands in a row of a view, or on a slip or bar of it. */
export type ViewRow = AnswerOf<'lookAtBoard'>['places'][number]['rows'][number];

/** What a row shows of a fact or a field that is among the columns of its view. */
export function cellIn(row: ViewRow, of: string, { columns }: Pick<ViewDesign, 'columns'>): ReactNode {
  return isFact(of) ? factOf(row, of) : told(wordsIn(row, of, { columns }));
}

/** What a field says in a row, where it is among the columns of its view. */
export function wordsIn(row: ViewRow, of: string, { columns }: Pick<ViewDesign, 'columns'>): Words {
  const fields = columns.filter((each) => !isFact(each.of)).map((each) => each.of);
  return row.cells[fields.indexOf(of)] ?? '';
}

/** What stands in a column of what everything has. */
function factOf(row: ViewRow, fact: string): ReactNode {
  switch (fact) {
    case 'request.number':
      return <span className="font-mono">{row.number}</span>;
    case 'request.subject':
      return <span className="subject text-[15.5px]">{told(row.subject)}</span>;
    case 'requester.person':
      return row.requester;
    case 'request.form':
      return row.form;
    case 'request.stage':
      return (
        <>
          <StageMark phase={row.stage.phase} role={row.stage.role} />
          {row.stage.label}
        </>
      );
    case 'request.team':
      return row.team;
    case 'request.handler':
      return row.handler ?? (row.thing ? '' : <span className="text-soft">{say('floor:noHandler')}</span>);
    case 'request.priority':
      return row.priority === null ? '' : say(`priorities:${row.priority}`);
    case 'request.arrived':
      return say('values:moment', { moment: row.arrived });
    case 'request.finished':
      return row.finished === null ? '' : say('values:moment', { moment: row.finished });
    case 'request.due':
      return row.fuse ? <Fuse fuse={row.fuse} for={row.dueFor} /> : '';
    default:
      return '';
  }
}
