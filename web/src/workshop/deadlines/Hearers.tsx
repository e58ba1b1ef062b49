import { type Recipient, recipientInWords } from '@tolvek/core/telling';
import { Chip } from '../../ui/Chip.tsx';
import { say, told } from '../../wire/words.ts';
import { useBinder } from '../binder.ts';
import { hearerOf, hearerWord } from './deadlineEdits.ts';
import { useRingNames } from './deadlineSentences.ts';

const RELATED = ['working', 'team', 'leads', 'requester', 'deciding'] as const;

interface HearersProps {
  /** What adding somebody is called. */
  readonly label: string;
  readonly nobody: string;
  readonly prompt: string;
  readonly who: readonly Recipient[];
  readonly set: (who: readonly Recipient[]) => void;
  /** Who can be meant besides. */
  readonly besides?: readonly Recipient[];
  /** Whether a field for several people can name them. */
  readonly several?: boolean;
  /** Whether other programs can be told. */
  readonly programs?: boolean;
}

/** Who is told: each can be taken off, and others added. */
export function Hearers({ label, nobody, prompt, who, set, besides = [], several, programs }: HearersProps) {
  const { form, editing } = useBinder();
  const names = useRingNames();
  const isThere = new Set(who.map(hearerWord));
  const option = (hearer: Recipient) =>
    isThere.has(hearerWord(hearer)) ? null : (
      <option key={hearerWord(hearer)} value={hearerWord(hearer)}>
        {told(recipientInWords(hearer, names))}
      </option>
    );
  const named = editing.draft.fields.filter(
    ({ type }) => type.kind === 'person' || (several && type.kind === 'people'),
  );
  return (
    <>
      {who.length === 0 ? <span>{nobody}</span> : null}
      {who.map((hearer) => (
        <Chip
          key={hearerWord(hearer)}
          words={told(recipientInWords(hearer, names))}
          dropLabel={say('workshop:dropChip', { what: told(recipientInWords(hearer, names)) })}
          drop={() => set(who.filter((each) => each !== hearer))}
        />
      ))}
      <select
        className="input w-auto"
        aria-label={label}
        value=""
        onChange={(event) => set([...who, hearerOf(event.target.value)])}
      >
        <option value="">{prompt}</option>
        <optgroup label={say('workshop:ofTheRequest')}>
          {RELATED.map(option)}
          {besides.map(option)}
          {named.map(({ key }) => option({ field: key }))}
        </optgroup>
        <optgroup label={say('workshop:someGroup')}>{form.groups.map(({ key }) => option({ group: key }))}</optgroup>
        {form.rosters.length > 0 ? (
          <optgroup label={say('workshop:onDutyOf')}>{form.rosters.map(({ key }) => option({ duty: key }))}</optgroup>
        ) : null}
        <optgroup label={say('workshop:onePerson')}>{form.people.map(({ key }) => option({ person: key }))}</optgroup>
        {programs && form.programs.length > 0 ? (
          <optgroup label={say('programs:aProgram')}>
            {form.programs.map(({ key }) => option({ program: key }))}
          </optgroup>
        ) : null}
      </select>
    </>
  );
}
