import { useCombobox } from 'downshift';
import { useEffect, useState } from 'react';
import { Face } from '../ui/Face.tsx';
import { say } from '../wire/words.ts';

export interface Offered {
  readonly key: string;
  readonly label: string;
  /** Where it belongs, in smaller words. */
  readonly detail?: string;
  /** The portrait of somebody who has one. */
  readonly face?: string | null;
  /** How far it stands in, when offered in its order. */
  readonly depth?: number;
}

interface ComboboxProps {
  readonly id: string;
  readonly describedBy: string | undefined;
  readonly invalid: boolean;
  readonly disabled: boolean | undefined;
  readonly placeholder: string;
  /** What stands in it: what is chosen, or what was typed and is none of the offered. */
  readonly words: string;
  readonly offered: readonly Offered[];
  /** Said where nothing is offered, or under what is. */
  readonly note: string;
  /** What was typed to find something. */
  readonly find: (words: string) => void;
  readonly choose: (item: Offered) => void;
  /** What was typed and left without choosing; empty when all was deleted. */
  readonly leave: (words: string) => void;
}

/** A line to type into that offers what fits; what is typed stays, chosen or not. */
export default function Combobox({
  id,
  describedBy,
  invalid,
  disabled,
  placeholder,
  words,
  offered,
  note,
  find,
  choose,
  leave,
}: ComboboxProps) {
  const [typed, setTyped] = useState(words);
  useEffect(() => setTyped(words), [words]);
  const { isOpen, getInputProps, getMenuProps, getItemProps, highlightedIndex } = useCombobox<Offered>({
    inputId: id,
    labelId: `${id}-label`,
    menuId: `${id}-offered`,
    items: [...offered],
    inputValue: typed,
    selectedItem: null,
    itemToString: (item) => item?.label ?? '',
    onSelectedItemChange: ({ selectedItem }) => {
      if (!selectedItem) return;
      setTyped(selectedItem.label);
      find('');
      choose(selectedItem);
    },
    stateReducer: (_, { changes, type }) =>
      type === useCombobox.stateChangeTypes.InputBlur ? { ...changes, selectedItem: null } : changes,
  });
  return (
    <div className="relative">
      <input
        {...getInputProps({
          className: 'input',
          disabled: disabled ?? false,
          placeholder,
          'aria-describedby': describedBy,
          'aria-invalid': invalid,
          // Kept as each letter is typed: told a moment later, letters typed fast would be lost.
          onChange: (event) => {
            setTyped(event.currentTarget.value);
            find(event.currentTarget.value);
          },
          onFocus: (event) => {
            find(typed === words ? '' : typed);
            event.currentTarget.select();
          },
          onBlur: () => leave(typed.trim()),
        })}
      />
      <div
        className={`absolute inset-x-0 top-full z-20 mt-1 border border-edge bg-sheet shadow-md ${isOpen ? '' : 'hidden'}`}
      >
        <ul {...getMenuProps({ 'aria-label': say('desk:suggestions') })} className="max-h-72 overflow-auto">
          {isOpen
            ? offered.map((item, index) => (
                <li
                  key={item.key}
                  {...getItemProps({ item, index })}
                  className={`cursor-pointer px-3 py-1.5 [.desk_&]:py-2.5 ${index === highlightedIndex ? 'bg-green-wash' : ''}`}
                  style={item.depth ? { paddingLeft: `${12 + item.depth * 18}px` } : undefined}
                >
                  {item.face ? <Face src={item.face} className="mr-2 size-5 align-text-bottom" /> : null}
                  {item.label} {item.detail ? <span className="text-[0.88em] text-soft">{item.detail}</span> : null}
                </li>
              ))
            : null}
        </ul>
        {note ? <p className="border-t border-rule px-3 py-1.5 text-[0.88em] text-soft">{note}</p> : null}
      </div>
    </div>
  );
}
