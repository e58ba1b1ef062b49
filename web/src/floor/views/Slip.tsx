import { useDraggable } from '@dnd-kit/core';
import type { Field } from '@tolvek/core/register';
import { calledIn, isFact, type ViewDesign } from '@tolvek/core/view';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { ColourMark } from '../../ui/ColourMark.tsx';
import { told } from '../../wire/words.ts';
import { cellIn, type ViewRow } from './cells.tsx';

interface SlipFaceProps {
  readonly row: ViewRow;
  readonly view: ViewDesign;
  readonly fields: readonly Field[];
  /** What its place says already. */
  readonly without: readonly (string | null)[];
  readonly here?: boolean;
  readonly isLifted?: boolean;
}

/** What stands on a slip besides what it is called, at most. */
const LINES = 4;

/** How one of a view looks where it stands by itself: what it is called, and what the columns of the view say. */
export function SlipFace({ row, view, fields, without, here = false, isLifted = false }: SlipFaceProps) {
  const mark = row.mark === null ? undefined : view.marks[row.mark];
  return (
    <span
      className={`block border-l-[3px] px-2.5 py-1.5 text-left text-[13px] ${here ? 'border-green' : 'border-rule-strong'} ${isLifted ? 'bg-sheet shadow-lg outline-2 outline-green' : 'bg-sheet'}`}
      style={mark ? { background: `color-mix(in srgb, var(--mark-${mark.colour}) 13%, var(--sheet))` } : undefined}
    >
      <b className="subject line-clamp-2 text-[15px] leading-snug font-[560]">{told(row.subject) || row.number}</b>
      <SlipLines {...{ row, view, fields, without }} />
    </span>
  );
}

/** What a mark and the columns of a view say of one that stands by itself, besides what it is called and what its place says. */
export function SlipLines({ row, view, fields, without }: Pick<SlipFaceProps, 'row' | 'view' | 'fields' | 'without'>) {
  const mark = row.mark === null ? undefined : view.marks[row.mark];
  const shown = view.columns
    .map(({ of }) => of)
    .filter((of) => of !== 'request.subject' && of !== 'request.number' && !without.includes(of))
    .map((of) => ({ of, content: cellIn(row, of, view) }))
    .filter(({ content }) => content !== '' && content !== null);
  return (
    <>
      {mark ? (
        <span className="block font-semibold">
          <ColourMark colour={mark.colour} />
          {mark.word}
        </span>
      ) : null}
      {shown.slice(0, LINES).map(({ of, content }) => (
        <span key={of} className="block truncate">
          {isFact(of) ? null : <span className="text-soft">{told(calledIn(of, fields))} </span>}
          {content}
        </span>
      ))}
    </>
  );
}

/** What opens the sheet of one, and can be lifted. */
export function Liftable({
  row,
  to,
  here,
  children,
}: {
  row: ViewRow;
  to: string;
  here: boolean;
  children: ReactNode;
}) {
  const called = told(row.subject) || row.number;
  const { setNodeRef, listeners, attributes, isDragging } = useDraggable({
    id: row.number,
    data: { number: row.number, called },
  });
  return (
    <Link
      ref={setNodeRef}
      to={to}
      {...listeners}
      aria-describedby={attributes['aria-describedby']}
      aria-current={here ? 'true' : undefined}
      title={called}
      className={`block min-w-0 text-ink no-underline ${isDragging ? 'opacity-40' : ''}`}
      draggable={false}
    >
      {children}
    </Link>
  );
}
