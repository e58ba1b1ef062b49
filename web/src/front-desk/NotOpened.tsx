import { Link } from 'react-router';
import { Column } from '../ui/Column.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { say } from '../wire/words.ts';

/** In the place of what a link leads to: that it is still being opened, or why it can’t be. */
export const NotOpened = ({ error }: { readonly error: unknown }) => (
  <Column>
    {error ? (
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
