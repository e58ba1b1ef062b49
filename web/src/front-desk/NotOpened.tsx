import { Link } from 'react-router';
import { Column } from '../ui/Column.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { problemOf } from '../wire/problem.ts';
import { say } from '../wire/words.ts';
import { ProveWho } from './ProveWho.tsx';

/** In the place of what a link leads to: that it is still being opened, or why it can’t be. */
export const NotOpened = ({ error }: { readonly error: unknown }) => {
  return (
    <Column>
      {error && problemOf(error).type.endsWith(':prove') ? (
        <>
          <h1 className="text-[28px]">{say('desk:proveLinkTitle')}</h1>
          <p className="mt-3">{say('desk:proveLinkSays')}</p>
          <ProveWho back={`${location.pathname}${location.search}`} again />
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
