import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { ToSignIn } from '../ui/ToSignIn.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { useTitle } from '../ui/useTitle.ts';
import { meApi } from '../wire/me.ts';
import { say } from '../wire/words.ts';

interface FloorFrameProps {
  readonly title: string;
  readonly intro?: string;
  /** What kept the page from being read, and how it is tried again. */
  readonly error: unknown;
  readonly again: () => void;
  readonly children: ReactNode;
}

/** A page beside the trays of the Floor, with the way back to them; whoever is not signed in is led there. */
export function FloorFrame({ title, intro, error, again, children }: FloorFrameProps) {
  useTitle(title);
  const { data: me } = meApi.useMeQuery();
  if (me && !me.person) return <ToSignIn />;
  return (
    <main className="mx-auto max-w-[1240px] px-6 pt-5 pb-16">
      <p>
        <Link to="/floor" className="text-[13px] text-soft">
          {say('common:floor')}
        </Link>
      </p>
      <h1>{title}</h1>
      {intro === undefined ? null : <p className="mt-1 text-soft">{intro}</p>}
      {error ? (
        <div className="mt-4">
          <Trouble error={error} again={again} />
        </div>
      ) : null}
      {children}
    </main>
  );
}
