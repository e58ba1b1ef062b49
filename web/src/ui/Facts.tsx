import { Fragment } from 'react';

/** Labels and values as ruled lines. */
export function Facts({ facts }: { facts: readonly { readonly key: string; readonly label: string; readonly shown: string }[] }) {
  return (
    <dl className="grid grid-cols-[minmax(7rem,2fr)_5fr]">
      {facts.map((fact) => (
        <Fragment key={fact.key}>
          <dt className="border-b border-rule py-1.5 pr-3 text-soft">{fact.label}</dt>
          <dd className="border-b border-rule py-1.5 break-words whitespace-pre-line">{fact.shown}</dd>
        </Fragment>
      ))}
    </dl>
  );
}
