import type { AnswerOf } from '@tolvek/contract';
import type { ProgramRight } from '@tolvek/core/program';
import { Chip } from '../../ui/Chip.tsx';
import { ProblemsAt } from '../../ui/ProblemsAt.tsx';
import { TextLine } from '../../ui/TextLine.tsx';
import { say } from '../../wire/words.ts';
import { inRegister, type ProgramDraft, rightsLeft, withRight } from './programDraft.ts';

export type Around = AnswerOf<'programs'>;

interface FieldsProps {
  readonly draft: ProgramDraft;
  readonly change: (edit: (before: ProgramDraft) => ProgramDraft) => void;
  readonly around: Around;
  readonly error: unknown;
}

/** All that is set of a program. */
export function ProgramFields({ draft, change, around, error }: FieldsProps) {
  const set = (edit: Partial<ProgramDraft>): void => change((before) => ({ ...before, ...edit }));
  return (
    <fieldset disabled={!around.mayChange}>
      <div className="grid items-start gap-x-8 sm:grid-cols-2">
        <TextLine
          id="program-name"
          label={say('programs:name')}
          error={error}
          field="name"
          value={draft.name}
          change={(name) => set({ name })}
        />
        <TextLine
          id="program-note"
          label={say('programs:note')}
          error={error}
          field="note"
          value={draft.note}
          change={(note) => set({ note })}
        />
      </div>
      <Rights {...{ draft, set, around, error }} />
      <Groups {...{ draft, set, around, error }} />
      <h2 className="section-head mt-7">{say('programs:toldHead')}</h2>
      <TextLine
        id="program-address"
        label={say('programs:address')}
        hint={say('programs:addressHint')}
        error={error}
        field="address"
        type="url"
        inputMode="url"
        value={draft.address}
        change={(address) => set({ address })}
      />
    </fieldset>
  );
}

type PartProps = Pick<FieldsProps, 'draft' | 'around' | 'error'> & {
  readonly set: (edit: Partial<ProgramDraft>) => void;
};

const mayInWords = (right: ProgramRight): string =>
  say(`programs:may.${right.replace(':all', '') as Of<ProgramRight>}`);
type Of<Right> = Right extends `${infer What}:all` ? What : never;

function Rights({ draft: { may }, set, around: { registers }, error }: PartProps) {
  const left = rightsLeft(may);
  return (
    <>
      <h2 className="section-head mt-7">{say('programs:rights')}</h2>
      <p className="mt-1.5 text-soft">{say('programs:rightsHint')}</p>
      <ul className="mt-1.5">
        {may.map(({ right, register }, place) => {
          const words = mayInWords(right);
          return (
            <li
              key={`${right} ${register ?? ''}`}
              className="flex flex-wrap items-center gap-3 border-b border-rule py-1.5"
            >
              <span className="min-w-56 flex-1">{words}</span>
              <select
                className="input w-auto py-1"
                aria-label={say('programs:whereOf', { right: words })}
                value={register ?? ''}
                onChange={({ target }) => set({ may: inRegister(may, place, target.value || null) })}
              >
                <option value="">{say('programs:everywhere')}</option>
                {registers.map(({ id, name }) => (
                  <option key={id} value={id}>
                    {name}
                  </option>
                ))}
              </select>
              <button
                type="button"
                className="px-2 py-1 text-soft hover:text-brick"
                aria-label={say('programs:dropRight', { right: words })}
                onClick={() => set({ may: may.filter((_, at) => at !== place) })}
              >
                ×
              </button>
            </li>
          );
        })}
        {may.length === 0 ? <li className="py-1.5 text-soft">{say('programs:noRights')}</li> : null}
      </ul>
      {left.length > 0 ? (
        <select
          className="input mt-2 w-auto"
          aria-label={say('programs:addRight')}
          value=""
          onChange={({ target }) => set({ may: withRight(may, target.value as ProgramRight) })}
        >
          <option value="">{say('programs:addRight')}</option>
          {left.map((right) => (
            <option key={right} value={right}>
              {mayInWords(right)}
            </option>
          ))}
        </select>
      ) : null}
      <ProblemsAt error={error} field="may" />
    </>
  );
}

function Groups({ draft: { groups }, set, around, error }: PartProps) {
  const nameOf = (key: string): string => around.groups.find((each) => each.key === key)?.name ?? key;
  return (
    <>
      <h2 className="section-head mt-7">{say('programs:groups')}</h2>
      <p className="mt-1.5 text-soft">{say('programs:groupsHint')}</p>
      <div className="mt-2 flex flex-wrap items-center gap-2">
        {groups.map((key) => (
          <Chip
            key={key}
            words={nameOf(key)}
            dropLabel={say('workshop:dropChip', { what: nameOf(key) })}
            drop={() => set({ groups: groups.filter((each) => each !== key) })}
          />
        ))}
        <select
          className="input w-auto"
          aria-label={say('programs:addGroup')}
          value=""
          onChange={({ target }) => set({ groups: [...groups, target.value] })}
        >
          <option value="">{say('programs:addGroup')}</option>
          {around.groups
            .filter(({ key }) => !groups.includes(key))
            .map(({ key, name }) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
        </select>
      </div>
      <ProblemsAt error={error} field="groups" />
    </>
  );
}
