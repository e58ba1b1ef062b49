import type { Field } from '@tolvek/core/register';
import { calledIn } from '@tolvek/core/view';
import { useRef } from 'react';
import { say, told } from '../../wire/words.ts';
import { WIDTHS } from './grid.ts';
import { originOf } from './viewDraft.ts';

/** How far a key makes a column wider, px. */
const KEY_STEP = 16;

interface ColumnHeadProps {
  /** A fact, or a field by its key. */
  readonly of: string;
  readonly fields: readonly Field[];
  /** Which column it is, the first being 0. */
  readonly place: number;
  readonly isFigure: boolean;
  /** px. */
  readonly width: number;
  readonly resize: (width: number) => void;
  /** Where rows are chosen: whether all are. */
  readonly all?: { readonly isIn: boolean; readonly choose: (isIn: boolean) => void };
}

/** What a column is called, where it comes from, and the edge by which it is made wider. */
export function ColumnHead({ of, fields, place, isFigure, width, resize, all }: ColumnHeadProps) {
  const cell = useRef<HTMLTableCellElement>(null);
  const origin = originOf(of, fields);
  const called = told(calledIn(of, fields));
  const drag = (event: React.PointerEvent<HTMLElement>): void => {
    event.preventDefault();
    const [from, wide] = [event.clientX, cell.current?.offsetWidth ?? width];
    const edge = event.currentTarget;
    edge.setPointerCapture(event.pointerId);
    const end = ({ clientX }: PointerEvent): void => {
      edge.removeEventListener('pointerup', end);
      resize(wide + clientX - from);
    };
    edge.addEventListener('pointerup', end);
  };
  return (
    <th
      ref={cell}
      scope="col"
      className={`sticky top-0 border-b border-rule-strong bg-paper px-2 py-1.5 text-[12px] font-semibold text-soft ${place === 0 ? 'left-0 z-20' : 'z-10'} ${isFigure ? 'text-right' : 'text-left'}`}
    >
      <span className="block truncate">
        {all ? (
          <input
            type="checkbox"
            className="mr-2 size-[15px] align-[-2px] accent-green"
            aria-label={say('floor:chooseAll')}
            checked={all.isIn}
            onChange={({ target }) => all.choose(target.checked)}
          />
        ) : null}
        {called}
        {origin === 'fact' || origin === 'asked' ? null : (
          <i className="subject ml-1.5 text-[12px] font-normal text-brass italic">{say(`views:origin.${origin}`)}</i>
        )}
      </span>
      {/* biome-ignore lint/a11y/useSemanticElements: a line that is moved (ARIA window splitter), and not one that parts texts */}
      <span
        role="separator"
        aria-orientation="vertical"
        aria-label={say('views:widthOf', { what: called })}
        aria-valuenow={width}
        aria-valuemin={WIDTHS.least}
        aria-valuemax={WIDTHS.most}
        tabIndex={0}
        className="absolute top-0 right-0 h-full w-[7px] cursor-col-resize touch-none border-r border-transparent hover:border-rule-strong focus-visible:border-green"
        onPointerDown={drag}
        onKeyDown={(event) => {
          const by = event.key === 'ArrowRight' ? KEY_STEP : event.key === 'ArrowLeft' ? -KEY_STEP : 0;
          if (by === 0) return;
          event.preventDefault();
          event.stopPropagation();
          resize(width + by);
        }}
      />
    </th>
  );
}
