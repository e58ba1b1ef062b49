import { lazy, type ReactNode, Suspense } from 'react';

const Linked = lazy(() => import('./Linked.tsx'));

/** Words whose links can be followed; what finds them is fetched where something looks like one. */
export const LiveText = ({ text }: { text: string }) =>
  /\w[.@:]\w|:\/\//.test(text) ? (
    <Suspense fallback={text}>
      <Linked text={text} />
    </Suspense>
  ) : (
    text
  );

/** What is said beside a request to whoever reads it, and what they can do there: `acts`, at the words with a place. */
export const Beside = ({ words, acts }: { words: readonly string[]; acts?: (at: number) => ReactNode }) =>
  words.map((text, at) => (
    <div key={text} className="mt-5 border-l-2 border-green pl-3.5 whitespace-pre-line">
      <p>
        <LiveText text={text} />
      </p>
      {acts?.(at)}
    </div>
  ));
