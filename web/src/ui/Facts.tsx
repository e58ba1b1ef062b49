import type { Words } from '@tolvek/words';
import { Fragment } from 'react';
import { told } from '../wire/words.ts';
import { LiveText } from './LiveText.tsx';

interface Fact {
  readonly key: string;
  readonly label: string;
  readonly shown: Words;
  readonly value?: unknown;
}

/** How a stored file is referred to: its identity, then its name. */
const FILE = /^([0-9a-z]{26}|[0-9a-f-]{36})\/(.+)$/;

/** The files that a value names. */
const filesIn = (value: unknown): readonly { readonly id: string; readonly name: string }[] =>
  Array.isArray(value)
    ? value.flatMap((ref) => {
        const [, id, name] = (typeof ref === 'string' && FILE.exec(ref)) || [];
        return id && name ? [{ id, name }] : [];
      })
    : [];

interface FactsProps {
  readonly facts: readonly Fact[];
  readonly fileAt?: (id: string) => string;
  /** Whether each has a line below. */
  readonly isRuled?: boolean;
}

/** Labels and values as ruled lines; files as links, where somebody may fetch them. */
export function Facts({ facts, fileAt, isRuled = true }: FactsProps) {
  const line = isRuled ? 'border-b border-rule' : '';
  return (
    <dl className="grid grid-cols-[minmax(7rem,2fr)_5fr]">
      {facts.map((fact) => {
        const files = fileAt ? filesIn(fact.value) : [];
        return (
          <Fragment key={fact.key}>
            <dt className={`${line} py-1.5 pr-3 text-soft`}>{fact.label}</dt>
            <dd className={`${line} py-1.5 break-words whitespace-pre-line`}>
              {files.length === 0 ? (
                <LiveText text={told(fact.shown)} />
              ) : (
                files.map(({ id, name }) => (
                  <a key={id} href={fileAt?.(id)} className="block">
                    {name}
                  </a>
                ))
              )}
            </dd>
          </Fragment>
        );
      })}
    </dl>
  );
}
