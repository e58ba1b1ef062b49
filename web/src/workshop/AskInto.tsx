import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { Button } from '../ui/Button.tsx';
import { ProblemsAt } from '../ui/ProblemsAt.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { problemOf } from '../wire/problem.ts';
import { say } from '../wire/words.ts';
import { workshopApi } from './endpoints.ts';

/** Another form that asks into a register that is there: what it is called, what it asks, and whom. */
export function AskInto({ register }: { register: AnswerOf<'register'> }) {
  const navigate = useNavigate();
  const [ask, { isLoading, error }] = workshopApi.useAskIntoMutation();
  const [once] = useState(() => crypto.randomUUID());
  const [tries, setTries] = useState(0);
  const [title, setTitle] = useState('');
  const fields = register.fields.filter((field) => field.source === 'asked' && !register.left.includes(field.key));
  const [asks, setAsks] = useState<ReadonlySet<string>>(new Set(fields.map((field) => field.key)));
  const [doors, setDoors] = useState({ staff: true, outside: false });
  const problems = error ? (problemOf(error).problems ?? []) : [];
  const toggle = (key: string): void =>
    setAsks((before) =>
      before.has(key) ? new Set([...before].filter((each) => each !== key)) : new Set([...before, key]),
    );
  const make = async (event: React.FormEvent): Promise<void> => {
    event.preventDefault();
    // A corrected form is a new try; the same one sent twice is made once.
    setTries(tries + 1);
    const body = { title, asks: fields.flatMap(({ key }) => (asks.has(key) ? [key] : [])), doors };
    const made = await ask({ key: register.key, once: `${once}-${tries}`, body });
    if ('data' in made && made.data) navigate(`/workshop/${made.data.key}`);
  };
  const asked = (key: string): string =>
    register.forms
      .filter((form) => form.asks.includes(key))
      .map((form) => form.title)
      .join(', ');
  return (
    <form onSubmit={make} noValidate className="mt-3 max-w-[44rem]">
      <div className="grid grid-cols-[150px_1fr] items-start gap-x-4 gap-y-3">
        <label htmlFor="into-title" className="pt-1.5 text-soft">
          {say('workshop:title')}
        </label>
        <span>
          <input id="into-title" className="input" value={title} onChange={(event) => setTitle(event.target.value)} />
          <ProblemsAt error={error} field="title" />
        </span>
        <span className="pt-1 text-soft">{say('workshop:into.fields')}</span>
        <fieldset>
          <legend className="sr-only">{say('workshop:into.fields')}</legend>
          <p className="flex gap-4 pb-1">
            <button
              type="button"
              className="text-green underline"
              onClick={() => setAsks(new Set(fields.map((field) => field.key)))}
            >
              {say('workshop:into.all')}
            </button>
            <button type="button" className="text-green underline" onClick={() => setAsks(new Set())}>
              {say('workshop:into.none')}
            </button>
            <span className="text-soft">{say('workshop:into.of', { n: asks.size, of: fields.length })}</span>
          </p>
          {fields.map((field) => (
            <label
              key={field.key}
              className="grid grid-cols-[22px_1fr_auto] items-baseline border-b border-rule py-1.5"
            >
              <input
                type="checkbox"
                className="accent-green"
                checked={asks.has(field.key)}
                onChange={() => toggle(field.key)}
              />
              <span>
                {field.label} <span className="text-[13px] text-soft">{say(`fieldKinds:${field.type.kind}`)}</span>
              </span>
              <span className="text-right text-[13px] text-soft">
                {asked(field.key) || say('workshop:into.onNoForm')}
              </span>
            </label>
          ))}
          <ProblemsAt error={error} field="asks" />
        </fieldset>
        <span className="text-soft">{say('workshop:whoCanSend')}</span>
        <span className="flex flex-wrap gap-x-5 gap-y-1">
          {(['staff', 'outside'] as const).map((kind) => (
            <label key={kind} className="flex items-center gap-2">
              <input
                type="checkbox"
                className="accent-green"
                checked={doors[kind]}
                onChange={(event) => setDoors({ ...doors, [kind]: event.target.checked })}
              />{' '}
              {kind === 'staff' ? say('workshop:staffPeople') : say('workshop:outsiders')}
            </label>
          ))}
          <ProblemsAt error={error} field="doors" />
        </span>
      </div>
      <p className="mt-3 text-soft">{say('workshop:into.shared', { register: register.name })}</p>
      {error && problems.length === 0 ? (
        <div className="mt-4">
          <Trouble error={error} />
        </div>
      ) : null}
      <div className="mt-4">
        <Button look="main" type="submit" disabled={isLoading}>
          {isLoading ? say('workshop:creating') : say('workshop:createForm')}
        </Button>
        <span className="ml-4 text-soft">{say('workshop:notBeforeRelease')}</span>
      </div>
    </form>
  );
}
