import type { AnswerOf } from '@tolvek/contract';
import type { Field } from '@tolvek/core/register';
import { calledIn, type GalleryShape, type ViewDesign } from '@tolvek/core/view';
import { useState } from 'react';
import { Link } from 'react-router';
import { Button } from '../../ui/Button.tsx';
import { say, told } from '../../wire/words.ts';
import { SlipLines } from './Slip.tsx';
import { groupSaid, HowMany, sumsSaid } from './ViewSums.tsx';

type Page = AnswerOf<'lookThrough'>;
type Row = Page['rows'][number];
type Group = Page['groups'][number];

interface GalleryProps {
  readonly view: ViewDesign;
  readonly shape: GalleryShape;
  readonly fields: readonly Field[];
  readonly pages: readonly Page[];
  readonly open: string | undefined;
  readonly to: (number: string) => string;
  readonly more: (() => void) | null;
  readonly isLoading: boolean;
  readonly isAddingUp: boolean;
}

/** How near to the end what comes next is asked for, px. */
const NEAR = 700;

/** A view as a gallery: pictures first, what the columns say below, in the groups of the view. */
export function Gallery({ view, shape, fields, pages, open, to, more, isLoading, isAddingUp }: GalleryProps) {
  const rows = pages.flatMap((page) => page.rows);
  const [first] = pages;
  if (!first) return null;
  const inGroups = first.groups.map((group) => ({ group, rows: rows.filter((row) => row.group === group.id) }));
  const lots = inGroups.length > 0 ? inGroups.filter((lot) => lot.rows.length > 0) : [{ group: null, rows }];
  const noPicture = say('views:noPicture', { what: told(calledIn(shape.picture, fields)) });
  return (
    <div
      className="mt-2 min-h-0 flex-1 overflow-auto px-[22px] pb-6 contain-content"
      onScroll={({ currentTarget: { scrollHeight, scrollTop, clientHeight } }) => {
        if (more && !isLoading && scrollHeight - scrollTop - clientHeight < NEAR) more();
      }}
    >
      {lots.map(({ group, rows: some }) => (
        <section aria-label={group ? groupSaid(group) : undefined} key={group?.id ?? ''} className="mb-7">
          {group ? <LotHead {...{ group, view, fields }} /> : null}
          <ul className="grid grid-cols-[repeat(auto-fill,minmax(180px,1fr))] gap-x-5 gap-y-6">
            {some.map((row) => (
              <li key={row.number} className="min-w-0">
                <Plate {...{ row, view, fields, noPicture }} to={to(row.number)} here={row.number === open} />
              </li>
            ))}
          </ul>
        </section>
      ))}
      {more ? (
        <Button disabled={isLoading} onClick={more}>
          {say('views:moreOfThem')}
        </Button>
      ) : null}
      <HowMany {...{ view, first, isLoading, isAddingUp }} shown={rows.length} />
    </div>
  );
}

/** What a group is called, how many are in it, and what its columns add up to. */
const LotHead = ({ group, ...around }: { group: Group; view: ViewDesign; fields: readonly Field[] }) => (
  <h2 className="mb-3 border-b border-rule-strong pt-1 pb-1 text-[17px]">
    {groupSaid(group)}
    <small className="ml-2.5 font-sans text-[12.5px] font-normal text-soft">
      {[String(group.count), ...sumsSaid(group.sums, around)].join(' · ')}
    </small>
  </h2>
);

interface PlateProps {
  readonly row: Row;
  readonly view: ViewDesign;
  readonly fields: readonly Field[];
  readonly noPicture: string;
  readonly to: string;
  readonly here: boolean;
}

/** One of a gallery: its picture, what it is called, and what the columns say of it. */
function Plate({ row, view, fields, noPicture, to, here }: PlateProps) {
  const [isBroken, setBroken] = useState(false);
  const mark = row.mark === null ? undefined : view.marks[row.mark];
  const isShown = row.picture !== null && !isBroken;
  return (
    <Link
      to={to}
      aria-current={here ? 'true' : undefined}
      className="group block text-[13px] text-ink no-underline focus-visible:outline-offset-4"
    >
      <span className="block aspect-4/3 overflow-hidden bg-well">
        {isShown ? (
          <img
            src={`/api/requests/${encodeURIComponent(row.number)}/files/${row.picture}/small`}
            alt=""
            loading="lazy"
            className="size-full object-cover"
            onError={() => setBroken(true)}
          />
        ) : (
          <span className="subject flex size-full items-end p-2.5 text-[13px] font-normal text-soft italic">
            {noPicture}
          </span>
        )}
      </span>
      <span
        className={`block border-t-[3px] pt-1.5 ${here ? 'border-green' : 'border-rule-strong'}`}
        style={mark && !here ? { borderColor: `var(--mark-${mark.colour})` } : undefined}
      >
        <b className="subject line-clamp-2 text-[16px] leading-snug font-[560] group-hover:text-green">
          {told(row.subject) || row.number}
        </b>
        <SlipLines {...{ row, view, fields }} without={view.groups} />
      </span>
    </Link>
  );
}
