import type { KnownRequest } from '@tolvek/core/register';
import { lazy, Suspense, useEffect, useMemo, useState } from 'react';
import { say } from '../wire/words.ts';
import { Several } from './Chosen.tsx';
import type { Offered } from './Combobox.tsx';
import { type InputProps, typed, useAroundFields } from './input.ts';

const Cards = lazy(() => import('./Cards.tsx'));
const Combobox = lazy(() => import('./Combobox.tsx'));

/** How long typing rests before what fits is asked for. */
const REST = 180;

type ReferencePickerProps = Pick<InputProps, 'id' | 'fieldKey' | 'describedBy' | 'invalid' | 'disabled' | 'onBlur'> & {
  readonly words: string;
  readonly but: readonly string[];
  readonly placeholder: string;
  readonly put: (value: string) => void;
};

/** Asks the house what fits, a moment after the last letter. */
function useOffers(
  field: string,
  find: string | null,
): { readonly offers: readonly KnownRequest[]; readonly note: string } {
  const { offers: ask } = useAroundFields();
  const [state, setState] = useState<{ readonly offers: readonly KnownRequest[]; readonly note: string }>({
    offers: [],
    note: '',
  });
  useEffect(() => {
    if (find === null || !ask) return;
    let wanted = true;
    setState((before) => ({ ...before, note: before.offers.length === 0 ? say('desk:searching') : '' }));
    const asking = setTimeout(() => {
      ask(field, find).then(
        ({ offers, more }) =>
          wanted &&
          setState({
            offers,
            note:
              offers.length === 0
                ? find === ''
                  ? say('desk:nothingOffered')
                  : say('desk:nothingFound')
                : more
                  ? say('desk:typeForMore')
                  : '',
          }),
        () => wanted && setState({ offers: [], note: say('desk:cannotSearch') }),
      );
    }, REST);
    return () => {
      wanted = false;
      clearTimeout(asking);
    };
  }, [ask, field, find]);
  return state;
}

function ReferencePicker({
  id,
  fieldKey,
  describedBy,
  invalid,
  disabled,
  onBlur,
  words,
  but,
  placeholder,
  put,
}: ReferencePickerProps) {
  const { know, offers: ask } = useAroundFields();
  const [find, setFind] = useState<string | null>(null);
  const { offers, note } = useOffers(fieldKey, find);
  const offered = useMemo(
    () =>
      offers
        .filter((each) => !but.includes(each.id))
        .map(
          (each): Offered => ({
            key: each.id,
            label: each.label,
            ...(each.label === each.number ? {} : { detail: each.number }),
          }),
        ),
    [offers, but],
  );
  return (
    <Suspense fallback={<input className="input" id={id} aria-labelledby={`${id}-label`} value={words} readOnly />}>
      <Combobox
        id={id}
        describedBy={describedBy}
        invalid={invalid}
        disabled={disabled || !ask}
        placeholder={placeholder}
        words={words}
        offered={offered}
        note={note}
        find={setFind}
        choose={(item) => {
          const known = offers.find((each) => each.id === item.key);
          if (known) know?.(known);
          put(item.key);
        }}
        leave={(left) => {
          if (left !== words) put(offered.find((each) => each.label === left)?.key ?? left);
          setFind(null);
          onBlur?.();
        }}
      />
    </Suspense>
  );
}

const NONE: readonly string[] = [];

/** One request of another register: found by what it is shown by, or by its number; or chosen by its card. */
export function ReferenceInput(props: InputProps<'reference'>) {
  const { cardPicture } = useAroundFields();
  return props.type.cards && cardPicture ? <ByCards {...props} /> : <ByName {...props} />;
}

const ByCards = (props: InputProps<'reference'> | InputProps<'references'>) => (
  <Suspense fallback={<p className="text-soft">{say('desk:searching')}</p>}>
    <Cards {...props} />
  </Suspense>
);

function ByName(props: InputProps<'reference'>) {
  const { references } = useAroundFields();
  const value = typed(props.value);
  return (
    <ReferencePicker
      {...props}
      words={references.find((each) => each.id === value)?.label ?? value}
      but={NONE}
      placeholder={say('desk:typeToFind')}
      put={props.onChange}
    />
  );
}

/** Several requests of another register. */
export function ReferencesInput(props: InputProps<'references'>) {
  const { cardPicture } = useAroundFields();
  return props.type.cards && cardPicture ? <ByCards {...props} /> : <SeveralByName {...props} />;
}

function SeveralByName(props: InputProps<'references'>) {
  const { references } = useAroundFields();
  return (
    <Several
      id={props.id}
      value={props.value}
      disabled={props.disabled}
      labelOf={(id) => references.find((each) => each.id === id)?.label ?? id}
      put={props.onChange}
      picker={(chosen, add) => (
        <ReferencePicker
          {...props}
          words=""
          but={chosen}
          placeholder={chosen.length === 0 ? say('desk:typeToFind') : say('desk:addAnother')}
          put={add}
        />
      )}
    />
  );
}
