import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { translated } from '@tolvek/core/design';
import { mergeSettings, type RegisterSettings as Settings, settingsOf } from '@tolvek/core/form';
import { type Stage, standingScope } from '@tolvek/core/register';
import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { ProblemsAt } from '../ui/ProblemsAt.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { say } from '../wire/words.ts';
import { ChangeList } from './ChangeList.tsx';
import { workshopApi } from './endpoints.ts';
import { GroupOnTheSpot } from './groundwork/NewGroup.tsx';
import { Kept } from './Kept.tsx';
import { InOthers } from './languages/InOthers.tsx';
import { StageMap } from './StageMap.tsx';
import { StagesEditor } from './StagesEditor.tsx';
import { type StageDraft, withChange } from './stages.ts';
import { type Keeper, useEditing } from './useEditing.ts';

type Register = AnswerOf<'register'>;

/** The settings of a register as they are kept in its draft, and what the server tells of them. */
function useSettings(register: Register) {
  const { key, version, draft, changes, problems } = register;
  const [keep] = workshopApi.useKeepRegisterMutation();
  const [read] = workshopApi.useLazyRegisterQuery();
  const keeper = useMemo(
    (): Keeper<Settings> => ({
      merge: mergeSettings,
      store: async (sent, onVersion) => {
        const body = { ...sent, deskGroups: [...sent.deskGroups], stages: [...sent.stages] } as BodyOf<'keepRegister'>;
        const { data, error } = await keep({ key, version: onVersion, body });
        return data ? { version: data.version } : { error };
      },
      read: async () => {
        const { data } = await read({ key });
        return data && { content: data.draft, version: data.version };
      },
    }),
    [key, keep, read],
  );
  return { ...useEditing<Settings>({ content: draft, version }, keeper), changes, problems };
}

/**
 * What a register is called, who works at its desk, its stages and the ways between them: kept in a draft as one goes,
 * and put in force in one go.
 */
export function RegisterSettings({ register }: { register: Register }) {
  const { data: ground } = workshopApi.useGroundQuery();
  const editing = useSettings(register);
  const { content: now, changes, problems } = editing;
  const [put, { error, isLoading }] = workshopApi.usePutRegisterMutation();
  const [note, setNote] = useState('');
  const set = (next: Partial<Settings>): void => editing.change((before) => ({ ...before, ...next }));
  const found = { status: 422, data: { title: '', problems } };
  const groups = ground?.groups ?? [];
  const named = {
    groups: groups.map(({ key, name }) => ({ key, label: name })),
    stages: register.stages,
    profile: ground?.profile ?? [],
    forms: register.forms.map(({ key, title }) => ({ key, label: title })),
  };
  const putInForce = async (event: React.FormEvent): Promise<void> => {
    event.preventDefault();
    const done = await put({ key: register.key, version: editing.version, body: { note } });
    if (!('error' in done)) toast(say('workshop:putInForceNow'));
  };
  const isAsItWas = changes.length === 0;
  const takeBack = (): void => set(settingsOf(register));
  const isOpen = new Set(register.open);
  const fields = register.fields.filter((field) => isOpen.has(field.key) && !register.left.includes(field.key));
  const around = {
    was: register.stages,
    at: register.at,
    fields,
    groups,
    scope: standingScope(fields, named),
    error: found,
  };
  const toggle = (group: string): void =>
    set({
      deskGroups: now.deskGroups.includes(group)
        ? now.deskGroups.filter((each) => each !== group)
        : [...now.deskGroups, group],
    });
  return (
    <form onSubmit={putInForce} noValidate>
      <h2 className="section-head mt-9">{say('workshop:settingsTitle')}</h2>
      <div className="mt-2 flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <span className="text-soft">{isAsItWas ? say('workshop:settingsInForce') : say('workshop:settingsDraft')}</span>
        <Kept editing={editing} className="ml-auto" />
      </div>
      <div className="mt-3 grid max-w-[66rem] grid-cols-[150px_1fr] items-start gap-x-4 gap-y-3">
        <label htmlFor="register-name" className="pt-1.5 text-soft">
          {say('workshop:name')}
        </label>
        <span>
          <input
            id="register-name"
            className="input"
            value={now.name}
            onChange={(event) => set({ name: event.target.value })}
          />
          <ProblemsAt error={found} field="name" />
        </span>
        <label htmlFor="register-prefix" className="pt-1.5 text-soft">
          {say('workshop:numbersStart')}
        </label>
        <span>
          <input
            id="register-prefix"
            className="input w-28 font-mono"
            maxLength={5}
            value={now.prefix}
            onChange={(event) => set({ prefix: event.target.value.toUpperCase() })}
          />
          <span className="ml-3 text-soft">{say('workshop:numbersStay')}</span>
          <ProblemsAt error={found} field="prefix" />
        </span>
        <span className="text-soft">{say('workshop:itsStaff')}</span>
        <fieldset>
          <legend className="sr-only">{say('workshop:itsStaff')}</legend>
          <span className="flex flex-wrap gap-x-5 gap-y-2">
            {ground?.groups.map((group) => (
              <label key={group.key} className="flex min-h-6 items-center gap-2">
                <input
                  type="checkbox"
                  className="accent-green"
                  checked={now.deskGroups.includes(group.key)}
                  onChange={() => toggle(group.key)}
                />
                {group.name}
              </label>
            ))}
            <GroupOnTheSpot isTeam made={toggle} />
          </span>
          <span className="mt-1 block text-[13px] text-soft">{say('workshop:alsoWork')}</span>
          <ProblemsAt error={found} field="deskGroups" />
        </fieldset>
        <span className="text-soft">{say('workshop:exporting')}</span>
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="accent-green"
            checked={now.staysIn}
            onChange={(event) => set({ staysIn: event.target.checked })}
          />
          {say('workshop:neverExport')}
        </label>
        <span className="pt-1.5 text-soft">{say('workshop:stages')}</span>
        <span className="min-w-0">
          <StageMap stages={now.stages as readonly Stage[]} />
          <StagesEditor stages={now.stages as StageDraft[]} set={(stages) => set({ stages })} around={around} />
          <StagesInOthers stages={now.stages as StageDraft[]} set={(stages) => set({ stages })} />
        </span>
        {isAsItWas ? null : (
          <>
            <span className="pt-1.5 text-soft">{say('workshop:whatChanges')}</span>
            <ChangeList changes={changes} />
            <label htmlFor="register-note" className="pt-1.5 text-soft">
              {say('workshop:note')}
            </label>
            <input
              id="register-note"
              className="input"
              placeholder={say('workshop:noteHint')}
              value={note}
              onChange={(event) => setNote(event.target.value)}
            />
          </>
        )}
      </div>
      {error ? <Trouble error={error} /> : null}
      <p className="mt-4 flex flex-wrap items-baseline gap-x-3 gap-y-2">
        <Button
          look="main"
          type="submit"
          disabled={isAsItWas || isLoading || problems.length > 0 || editing.state !== 'kept'}
        >
          {say('workshop:putInForce')}
        </Button>
        <Button disabled={!editing.undo} onClick={() => editing.undo?.()}>
          {say('workshop:undo')}
        </Button>
        {editing.redo ? <Button onClick={() => editing.redo?.()}>{say('workshop:redo')}</Button> : null}
        {isAsItWas ? null : <Button onClick={takeBack}>{say('workshop:discard')}</Button>}
        <span className="text-soft">
          {isAsItWas
            ? say('workshop:nothingChanged')
            : problems.length > 0
              ? say('workshop:correctFirst')
              : say('workshop:holdsAtOnce')}
        </span>
      </p>
    </form>
  );
}

/** What requesters read of the stages, in other languages. */
function StagesInOthers({
  stages,
  set,
}: {
  readonly stages: readonly StageDraft[];
  readonly set: (stages: StageDraft[]) => void;
}) {
  const stageAt = (key: string): StageDraft | undefined => stages.find((stage) => stage.key === key);
  return (
    <InOthers
      texts={stages.flatMap(({ key, publicLabel, retired }) =>
        retired ? [] : [{ place: key, text: publicLabel, kind: 'stage' as const }],
      )}
      found={({ place }, language) => stageAt(place)?.translations?.[language]?.public}
      put={({ place, text }, language, says) => {
        const translations = translated(stageAt(place)?.translations, language, { place: 'public', text }, says);
        set(withChange(stages, place, { translations }));
      }}
    />
  );
}
