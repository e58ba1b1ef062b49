import type { Scope } from '@tolvek/core/expression';
import type { Audience } from '@tolvek/core/people';
import { ProblemsAt } from '../../ui/ProblemsAt.tsx';
import { say } from '../../wire/words.ts';
import { Chosen } from './Chosen.tsx';
import { type Meant, meaning, meantBy, toggled, withRequester, wordsMeant } from './planEdits.ts';

const MEANT: readonly Meant[] = ['anyOf', 'allOf', 'everyone'];
const REQUESTER = ['as-others', 'in', 'out'] as const;

interface AudienceFieldsProps {
  readonly id: string;
  readonly audience: Audience;
  readonly groups: readonly { readonly key: string; readonly name: string }[];
  /** What people are called who are chosen, by their ids. */
  readonly people: Readonly<Record<string, string>>;
  /** The names that conditions on profiles use; undefined where profiles have no fields. */
  readonly profile: Scope | undefined;
  readonly change: (next: (before: Audience) => Audience) => void;
  /** Whether groups alone can be named: where nobody is asked what they are to a request. */
  readonly onlyGroups?: boolean;
  /** Whether groups and people can be named, and nobody by what they are to a request. */
  readonly onlyWho?: boolean;
  /** Whether what somebody may do can be named. */
  readonly byRight?: boolean;
  /** Told what somebody is called who is chosen, by id. */
  readonly named?: (id: string, name: string) => void;
  /** What is wrong, and by which name it is told of. */
  readonly found?: unknown;
  readonly field?: string;
}

/** Whom something is for: any of, all of, everyone; whose request it is; and who is left out. Rows of a grid of two columns. */
export function AudienceFields(props: AudienceFieldsProps) {
  const {
    id,
    audience,
    groups,
    people,
    profile,
    change,
    found,
    field,
    onlyGroups = false,
    onlyWho = false,
    byRight = false,
    named,
  } = props;
  const meant = meantBy(audience);
  const known = profile ? { profile } : {};
  return (
    <>
      <label htmlFor={`${id}-who`} className="pt-1.5 text-soft">
        {say('accessPlan:for')}
      </label>
      <fieldset>
        <legend className="sr-only">{say('accessPlan:for')}</legend>
        <select
          id={`${id}-who`}
          className="input w-auto"
          value={meant}
          onChange={(event) => change((before) => meaning(before, event.target.value as Meant))}
        >
          {MEANT.map((each) => (
            <option key={each} value={each}>
              {say(`accessPlan:meant.${each}`)}
            </option>
          ))}
        </select>
        {meant === 'everyone' ? null : (
          <Chosen
            id={`${id}-meant`}
            {...{ groups, people, onlyGroups, byRight, ...known }}
            byRequest={!onlyWho}
            named={named}
            chosen={wordsMeant(audience)}
            label={say('accessPlan:addMeant')}
            toggle={(key) => change((before) => meaning(before, meant, toggled(wordsMeant(before), key)))}
          />
        )}
        {field ? <ProblemsAt error={found} field={field} /> : null}
      </fieldset>
      {onlyGroups || onlyWho ? null : (
        <>
          <label htmlFor={`${id}-requester`} className="pt-1.5 text-soft">
            {say('accessPlan:requester')}
          </label>
          <span>
            <select
              id={`${id}-requester`}
              className="input w-auto"
              value={audience.requester ?? 'as-others'}
              onChange={(event) =>
                change((before) => withRequester(before, event.target.value as (typeof REQUESTER)[number]))
              }
            >
              {REQUESTER.map((each) => (
                <option key={each} value={each}>
                  {say(`accessPlan:requester.${each}`)}
                </option>
              ))}
            </select>
          </span>
        </>
      )}
      <span className="text-soft">{say('accessPlan:except')}</span>
      <fieldset>
        <legend className="sr-only">{say('accessPlan:except')}</legend>
        <Chosen
          id={`${id}-out`}
          {...{ groups, people, onlyGroups, byRight, ...known }}
          byRequest={!onlyWho}
          named={named}
          chosen={audience.outOf}
          label={say('accessPlan:addExcept')}
          toggle={(key) => change((before) => ({ ...before, outOf: toggled(before.outOf, key) }))}
        />
        <span className="mt-1 block text-[13px] text-soft">{say('accessPlan:exceptHint')}</span>
      </fieldset>
    </>
  );
}
