import { Link } from 'react-router';
import { Column } from '../ui/Column.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { problemOf } from '../wire/problem.ts';
import { say } from '../wire/words.ts';

/** In the place of what a link leads to: that it is still being opened, or why it can’t be. */
export const NotOpened = ({ error }: { readonly error: unknown }) => {
  const here = encodeURIComponent(`${location.pathname}${location.search}`);
  return (
    <Column>
      {error && problemOf(error).type.endsWith(':prove') ? (
        <>
          <h1 className="text-[28px]">{say('desk:proveLinkTitle')}</h1>
          <p className="mt-3">{say('desk:proveLinkSays')}</p>
          <p className="mt-5 flex flex-wrap gap-x-6 gap-y-3">
            <Link to={`/sign-in?back=${here}`}>{say('desk:proveAsStaff')}</Link>
            <Link to={`/come-in?again&back=${here}`}>{say('desk:proveFromOutside')}</Link>
          </p>
        </>
      ) : error ? (
        <>
          <Trouble error={error} />
          <p className="mt-5">
            <Link to="/">{say('common:toFrontDesk')}</Link>
          </p>
        </>
      ) : (
        <p className="text-soft">{say('desk:openingRequestFor')}</p>
      )}
    </Column>
  );
};
