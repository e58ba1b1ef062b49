import { Link } from 'react-router';

/** No page has this address. */
export const Nowhere = () => (
  <main className="mx-auto max-w-[44rem] px-4 py-12">
    <h1>There is nothing at this address</h1>
    <p className="mt-3 text-soft">Check the link, or begin at the Front desk.</p>
    <p className="mt-5">
      <Link to="/">To the Front desk</Link>
    </p>
  </main>
);

/** A page broke: what is safe, and the way on. */
export const Stumble = () => (
  <main className="mx-auto max-w-[44rem] px-4 py-12" role="alert">
    <h1>Something broke on this page</h1>
    <p className="mt-3 text-soft">
      What you sent is stored; what you typed into a form is kept on this device. Load the page again to go on.
    </p>
    <p className="mt-5 flex gap-5">
      <button type="button" className="font-semibold text-green underline" onClick={() => location.reload()}>
        Load again
      </button>
      <a href="/">To the Front desk</a>
    </p>
  </main>
);
