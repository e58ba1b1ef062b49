import { termByKey, termMeant, termPath, termsOffered, type Vocabulary } from '@tolvek/core/register';
import { lazy, Suspense, useMemo, useState } from 'react';
import { say } from '../wire/words.ts';
import { Several } from './Chosen.tsx';
import type { Offered } from './Combobox.tsx';
import { type InputProps, typed, useAroundFields } from './input.ts';

const Combobox = lazy(() => import('./Combobox.tsx'));

/** Terms listed at once; who doesn’t see theirs types more of it. */
const LISTED = 150;

const NO_TERMS: Vocabulary = { key: '', name: '', terms: [] };

/** A vocabulary as far as it is known here; without terms where it is not. */
function useVocabulary(key: string): Vocabulary {
  return useAroundFields().vocabularies.find((each) => each.key === key) ?? NO_TERMS;
}

const plain = (words: string): string => words.trim().toLowerCase();

/**
 * The terms that fit what is typed: all in their order while nothing is, else those whose words
 * hold it, each with where it stands.
 */
function offeredFor(
  vocabulary: Vocabulary,
  under: string | undefined,
  find: string,
  but: readonly string[],
): readonly Offered[] {
  const words = plain(find).split(/\s+/).filter(Boolean);
  return termsOffered(vocabulary, under)
    .filter(({ term }) => !but.includes(term.key))
    .flatMap(({ term, depth }): Offered[] => {
      if (words.length === 0) return [{ key: term.key, label: term.label, depth }];
      const hit = [term.label, ...(term.also ?? [])]
        .map(plain)
        .find((each) => words.every((word) => each.includes(word)));
      if (hit === undefined) return [];
      const other = hit === plain(term.label) ? [] : [term.also?.find((each) => plain(each) === hit) ?? ''];
      return [
        {
          key: term.key,
          label: term.label,
          detail: [...termPath(vocabulary, term.key).slice(0, -1), ...other].join(' › '),
        },
      ];
    })
    .slice(0, LISTED);
}

type TermPickerProps = Pick<InputProps, 'id' | 'describedBy' | 'invalid' | 'disabled' | 'onBlur'> & {
  readonly type: { readonly vocabulary: string; readonly under?: string };
  readonly words: string;
  readonly but: readonly string[];
  readonly placeholder: string;
  readonly put: (value: string) => void;
};

function TermPicker({
  id,
  describedBy,
  invalid,
  disabled,
  onBlur,
  type,
  words,
  but,
  placeholder,
  put,
}: TermPickerProps) {
  const [find, setFind] = useState('');
  const vocabulary = useVocabulary(type.vocabulary);
  const offered = useMemo(() => offeredFor(vocabulary, type.under, find, but), [vocabulary, type.under, find, but]);
  const leave = (left: string): void => {
    // Words that mean a term are taken as it; others stay as they are, and are told to be none.
    if (left !== words) put(termMeant(vocabulary, left)?.key ?? left);
    setFind('');
    onBlur?.();
  };
  return (
    <Suspense fallback={<input className="input" id={id} aria-labelledby={`${id}-label`} value={words} readOnly />}>
      <Combobox
        id={id}
        describedBy={describedBy}
        invalid={invalid}
        disabled={disabled}
        placeholder={placeholder}
        words={words}
        offered={offered}
        note={
          offered.length === 0 ? say('desk:nothingFound') : offered.length === LISTED ? say('desk:typeForMore') : ''
        }
        find={setFind}
        choose={(item) => put(item.key)}
        leave={leave}
      />
    </Suspense>
  );
}

const NONE: readonly string[] = [];

/** One term of a vocabulary: typed, or chosen from its order. */
export function TermInput(props: InputProps<'term'>) {
  const value = typed(props.value);
  const vocabulary = useVocabulary(props.type.vocabulary);
  return (
    <TermPicker
      {...props}
      words={termByKey(vocabulary, value)?.label ?? value}
      but={NONE}
      placeholder={say('desk:typeOrChoose')}
      put={props.onChange}
    />
  );
}

/** Several terms: those chosen as a list, one more by typing. */
export function TermsInput(props: InputProps<'terms'>) {
  const vocabulary = useVocabulary(props.type.vocabulary);
  return (
    <Several
      id={props.id}
      value={props.value}
      disabled={props.disabled}
      labelOf={(key) => termByKey(vocabulary, key)?.label ?? key}
      put={props.onChange}
      picker={(chosen, add) => (
        <TermPicker
          {...props}
          words=""
          but={chosen}
          placeholder={chosen.length === 0 ? say('desk:typeOrChoose') : say('desk:addAnother')}
          put={add}
        />
      )}
    />
  );
}
