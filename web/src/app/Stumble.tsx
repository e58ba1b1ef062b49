import { Link, useRouteError } from 'react-router';

/** When a page does not exist, or breaks: what is safe, and the way on. */
export function Stumble() {
  const broken = useRouteError();
  return (
    <main className="mx-auto max-w-[44rem] px-4 py-12">
      <h1>{broken ? 'Something broke on this page' : 'There is nothing at this address'}</h1>
      <p className="mt-3 text-soft">
        {broken ? 'What you sent is stored; what you typed into a form is kept on this device. Load the page again to go on.' : 'Check the link, or begin at the Front desk.'}
      </p>
      <p className="mt-5 flex gap-5">
        {broken ? (
          <button type="button" className="font-semibold text-green underline" onClick={() => location.reload()}>
            Load again
          </button>
        ) : null}
        <Link to="/">To the Front desk</Link>
      </p>
    </main>
  );
}
