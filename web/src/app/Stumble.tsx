import { Link } from 'react-router';
import { say } from '../wire/words.ts';

/** No page has this address. */
export const Nowhere = () => (
  <main className="mx-auto max-w-[44rem] px-4 py-12">
    <h1>{say('common:nothingHere')}</h1>
    <p className="mt-3 text-soft">{say('common:nothingHereHint')}</p>
    <p className="mt-5">
      <Link to="/">{say('common:toFrontDesk')}</Link>
    </p>
  </main>
);

/** A page broke: what is safe, and the way on. */
export const Stumble = () => (
  <main className="mx-auto max-w-[44rem] px-4 py-12" role="alert">
    <h1>{say('common:pageBroke')}</h1>
    <p className="mt-3 text-soft">{say('common:pageBrokeHint')}</p>
    <p className="mt-5 flex gap-5">
      <button type="button" className="font-semibold text-green underline" onClick={() => location.reload()}>
        {say('common:loadAgain')}
      </button>
      <a href="/">{say('common:toFrontDesk')}</a>
    </p>
  </main>
);
