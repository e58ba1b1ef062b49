import type { AnswerOf } from '@tolvek/contract';
import { standingScope } from '@tolvek/core/register';
import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { ProblemsAt } from '../ui/ProblemsAt.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { problemOf } from '../wire/problem.ts';
import { workshopApi } from './endpoints.ts';
import { StagesEditor } from './StagesEditor.tsx';

/** What a register is called, who works at its desk, its stages and the ways between them: in force at once. */
export function RegisterSettings({ register }: { register: AnswerOf<'register'> }) {
  const { data: ground } = workshopApi.useGroundQuery();
  const [change, { error, isLoading }] = workshopApi.useChangeRegisterMutation();
  const was = {
    ...{ name: register.name, prefix: register.prefix, deskGroups: register.deskGroups, staysIn: register.staysIn },
    stages: [...register.stages],
  };
  const [now, setNow] = useState(was);
  const [note, setNote] = useState('');
  const set = (next: Partial<typeof now>): void => setNow((before) => ({ ...before, ...next }));
  const isChanged = JSON.stringify(now) !== JSON.stringify(was);
  const problems = error ? (problemOf(error).problems ?? []) : [];
  const groups = ground?.groups ?? [];
  const named = {
    groups: groups.map(({ key, name }) => ({ key, label: name })),
    stages: register.stages,
    forms: register.forms.map(({ key, title }) => ({ key, label: title })),
  };
  const put = async (event: React.FormEvent): Promise<void> => {
    event.preventDefault();
    const body = { ...now, left: [...register.left], note };
    const done = await change({ key: register.key, version: register.version, body });
    if (!('error' in done)) toast('In force now.');
  };
  const isOpen = new Set(register.open);
  const fields = register.fields.filter((field) => isOpen.has(field.key) && !register.left.includes(field.key));
  const around = { was: register.stages, at: register.at, fields, groups, scope: standingScope(fields, named), error };
  const toggle = (group: string): void =>
    set({
      deskGroups: now.deskGroups.includes(group)
        ? now.deskGroups.filter((each) => each !== group)
        : [...now.deskGroups, group],
    });
  return (
    <form onSubmit={put} noValidate>
      <h2 className="section-head mt-9">What it is called, and who works in it</h2>
      <div className="mt-3 grid max-w-[66rem] grid-cols-[150px_1fr] items-start gap-x-4 gap-y-3">
        <label htmlFor="register-name" className="pt-1.5 text-soft">
          Name
        </label>
        <span>
          <input
            id="register-name"
            className="input"
            value={now.name}
            onChange={(event) => set({ name: event.target.value })}
          />
          <ProblemsAt error={error} field="name" />
        </span>
        <label htmlFor="register-prefix" className="pt-1.5 text-soft">
          Numbers begin with
        </label>
        <span>
          <input
            id="register-prefix"
            className="input w-28 font-mono"
            maxLength={5}
            value={now.prefix}
            onChange={(event) => set({ prefix: event.target.value.toUpperCase() })}
          />
          <span className="ml-3 text-soft">Numbers that were given out stay as they are.</span>
          <ProblemsAt error={error} field="prefix" />
        </span>
        <span className="text-soft">Its desk</span>
        <fieldset>
          <legend className="sr-only">Its desk</legend>
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
          </span>
          <span className="mt-1 block text-[13px] text-soft">
            Besides them coordinators, the team a request is routed to, its handler and whoever decides it work on it.
          </span>
          <ProblemsAt error={error} field="deskGroups" />
        </fieldset>
        <span className="text-soft">Taking out</span>
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="accent-green"
            checked={now.staysIn}
            onChange={(event) => set({ staysIn: event.target.checked })}
          />
          What is in it is read here, and never taken out as a sheet
        </label>
        <span className="pt-1.5 text-soft">Stages</span>
        <span>
          <StagesEditor stages={now.stages} set={(stages) => set({ stages })} around={around} />
        </span>
        {isChanged ? (
          <>
            <label htmlFor="register-note" className="pt-1.5 text-soft">
              Note
            </label>
            <input
              id="register-note"
              className="input"
              placeholder="why; others read it later"
              value={note}
              onChange={(event) => setNote(event.target.value)}
            />
          </>
        ) : null}
      </div>
      {error && problems.length === 0 ? <Trouble error={error} /> : null}
      <p className="mt-4">
        <Button look="main" type="submit" disabled={!isChanged || isLoading}>
          Put it in force
        </Button>
        <span className="ml-4 text-soft">
          {isChanged ? 'It holds at once, for all its requests.' : 'Nothing is changed yet.'}
        </span>
      </p>
    </form>
  );
}
