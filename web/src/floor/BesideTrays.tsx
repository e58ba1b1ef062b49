import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { say } from '../wire/words.ts';
import { Sheet } from './Sheet.tsx';
import { TraysNav } from './TraysNav.tsx';

interface BesideTraysProps {
  /** The request that is open. */
  readonly number: string | undefined;
  /** Where its sheet is closed to. */
  readonly back: string;
  readonly children: ReactNode;
}

/** A page of the Floor: the trays at the left, what is looked at in the middle, the request sheet at the right. */
export const BesideTrays = ({ number, back, children }: BesideTraysProps) => (
  <div className="grid h-[calc(100dvh-46px)] grid-cols-[176px_minmax(0,1fr)] xl:grid-cols-[204px_minmax(0,1fr)]">
    <TraysNav />
    <div
      className={`grid min-h-0 ${number ? 'grid-cols-[minmax(0,1fr)_392px] xl:grid-cols-[minmax(0,1fr)_428px]' : 'grid-cols-1'}`}
    >
      <main className="flex min-h-0 min-w-0 flex-col pt-4">{children}</main>
      {number ? (
        <aside
          aria-label={say('floor:sheet')}
          className="min-h-0 overflow-auto border-l border-rule-strong bg-sheet px-[22px] py-4 contain-content"
        >
          <Sheet
            key={number}
            number={number}
            close={
              <Link to={back} className="text-[13px] text-soft">
                {say('common:close')}
              </Link>
            }
          />
        </aside>
      ) : null}
    </div>
  </div>
);
