import type { AnswerOf } from '@tolvek/contract';
import { isSame } from '@tolvek/core/design';
import type { Audience } from '@tolvek/core/people';
import { personScope } from '@tolvek/core/register';
import { useDeferredValue, useMemo, useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { WholeTrouble } from '../../ui/Trouble.tsx';
import { say } from '../../wire/words.ts';
import { AudienceFields } from '../access/AudienceFields.tsx';
import { groundApi } from './endpoints.ts';

type Opened = AnswerOf<'group'>;
type Some = AnswerOf<'tryRule'>['comes'];

const NOBODY: Audience = { in: { anyOf: [] }, outOf: [] };

/** Whom a group holds by rule: set here, with who would come in and who would go. */
export function GroupRule({ opened }: { opened: Opened }) {
  const { key, version, rule } = opened;
  const [draft, setDraft] = useState<Audience | null>(rule);
  const [names, setNames] = useState<Readonly<Record<string, string>>>(opened.named);
  const { data: all } = groundApi.useGroupsQuery();
  const [save, { isLoading, error }] = groundApi.useChangeGroupMutation();
  const scope = useMemo(() => {
    const fields = opened.profile.filter(({ retired }) => !retired);
    return fields.length > 0 ? personScope(fields, { vocabularies: opened.vocabularies }) : undefined;
  }, [opened.profile, opened.vocabularies]);
  const put = async (next: Audience | null): Promise<void> => {
    const saved = await save({ key, version, body: { rule: next } });
    if (!('error' in saved)) toast(say('ground:groupSaved'));
  };
  if (draft === null)
    return (
      <p className="mt-2">
        <button type="button" className="min-h-6 text-green underline" onClick={() => setDraft(NOBODY)}>
          {say('ground:addRule')}
        </button>
        <span className="block text-[12.5px] text-soft">{say('ground:ruleHint')}</span>
      </p>
    );
  return (
    <fieldset className="mt-2">
      <legend className="sr-only">{say('ground:rule')}</legend>
      <div className="grid grid-cols-[7rem_1fr] items-start gap-x-3 gap-y-2">
        <AudienceFields
          id="rule"
          audience={draft}
          groups={(all?.groups ?? []).filter((group) => group.key !== key && !group.retired)}
          people={names}
          profile={scope}
          named={(id, name) => setNames((known) => ({ ...known, [id]: name }))}
          change={(next) => setDraft((before) => next(before ?? NOBODY))}
          onlyWho
          found={error}
          field="rule"
        />
      </div>
      <Reach group={key} rule={draft} />
      <WholeTrouble error={error} />
      <p className="mt-3 flex flex-wrap gap-2">
        <Button look="main" disabled={isLoading || isSame(draft, rule)} onClick={() => void put(draft)}>
          {say('ground:saveRule')}
        </Button>
        {rule === null ? (
          <Button onClick={() => setDraft(null)}>{say('common:cancel')}</Button>
        ) : (
          <Button disabled={isLoading} onClick={() => void put(null)}>
            {say('ground:removeRule')}
          </Button>
        )}
      </p>
    </fieldset>
  );
}

/** How many a rule means, who would come in by it and who would go, while it is being set. */
function Reach({ group, rule }: { group: string; rule: Audience }) {
  const tried = useDeferredValue(rule);
  const { data, isFetching } = groundApi.useTryRuleQuery({ key: group, body: { rule: tried } });
  if (!data) return null;
  return (
    <p className={`mt-2 text-[13px] ${isFetching ? 'cursor-progress' : ''}`} aria-live="polite">
      {say('ground:ruleMeans', { count: data.means })}
      <Told of={data.comes} words="ground:ruleComes" />
      <Told of={data.goes} words="ground:ruleGoes" />
    </p>
  );
}

const Told = ({ of, words }: { of: Some; words: 'ground:ruleComes' | 'ground:ruleGoes' }) =>
  of.count === 0 ? null : (
    <span className="block">
      {say(words, { count: of.count, names: of.names })}
      {of.count > of.names.length ? ` ${say('ground:andMore', { count: of.count - of.names.length })}` : ''}
    </span>
  );
