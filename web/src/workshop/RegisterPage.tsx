import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { Link, Navigate, useParams } from 'react-router';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { useTitle } from '../ui/useTitle.ts';
import { DeskMoment } from '../wire/DeskMoment.tsx';
import { meApi } from '../wire/me.ts';
import { AskInto } from './AskInto.tsx';
import { Doubles } from './Doubles.tsx';
import { kindLabel } from './edits.ts';
import { workshopApi } from './endpoints.ts';
import { RegisterSettings } from './RegisterSettings.tsx';

type Register = AnswerOf<'register'>;
type AskingForm = Register['forms'][number];

/** A register: the forms that ask into it beside each other, what it is called, and what it was. */
export function RegisterPage() {
  const { register: key = '' } = useParams();
  const { data: me } = meApi.useMeQuery();
  const { data: register, error, refetch } = workshopApi.useRegisterQuery({ key });
  useTitle(register?.name ?? 'Register');
  if (me && !me.person) return <Navigate to={`/sign-in?back=/workshop/registers/${key}`} replace />;
  return (
    <main className="mx-auto max-w-[68rem] px-6 pt-6 pb-16">
      <p>
        <Link to="/workshop">Workshop</Link>
      </p>
      {error ? <Trouble error={error} again={refetch} /> : null}
      {register ? <OpenRegister key={register.key} register={register} /> : null}
    </main>
  );
}

function OpenRegister({ register }: { register: Register }) {
  const [adding, setAdding] = useState(false);
  const { forms, requests, holds, prefix } = register;
  const what = holds === 'things' ? 'thing' : 'request';
  return (
    <>
      <h1 className="mt-1">{register.name}</h1>
      <p className="text-soft">
        {requests} {requests === 1 ? what : `${what}s`}, numbered {prefix}-00001 and on. {formsInWords(forms.length)}{' '}
        Fields, stages and access belong to the register; each form asks for some of it.
      </p>
      <h2 className="section-head mt-7">Forms that ask into it</h2>
      <ul>
        {forms.map((form) => (
          <FormLine key={form.key} form={form} isOnly={forms.length === 1} />
        ))}
      </ul>
      <p className="mt-3">
        <Button aria-expanded={adding} onClick={() => setAdding(!adding)}>
          Another form …
        </Button>
      </p>
      {adding ? <AskInto register={register} /> : null}
      <Fields register={register} />
      <Doubles registerKey={register.key} />
      <RegisterSettings key={register.states[0]?.number ?? 0} register={register} />
      <States register={register} />
    </>
  );
}

const formsInWords = (n: number): string =>
  n === 0 ? 'No form asks into it.' : n === 1 ? 'One form asks into it.' : `${n} forms ask into it.`;

const OWN_WORDS = { routing: 'routing', approval: 'approval', deadline: 'deadline' } as const;

function FormLine({ form, isOnly }: { form: AskingForm; isOnly: boolean }) {
  const [setState, { error }] = workshopApi.useSetFormStateMutation();
  const [duplicate, duplicated] = workshopApi.useDuplicateFormMutation();
  const [once] = useState(() => crypto.randomUUID());
  const put = async (state: 'in use' | 'stopped' | 'deleted', words: string): Promise<void> => {
    const done = await setState({ key: form.key, body: { state } });
    if (!('error' in done)) toast(words);
  };
  const copy = async (): Promise<void> => {
    const title = `${form.title}, again`.slice(0, 200);
    const made = await duplicate({ key: form.key, once, body: { title } });
    if (!('error' in made)) toast(`“${title}” is on the shelf. Nobody can ask with it before it is released.`);
  };
  const state = form.stopped
    ? 'stopped: nobody can ask by it'
    : form.release === 0
      ? 'not released yet'
      : `release ${form.release}`;
  const doors = form.doors.map((door) => (door.kind === 'staff' ? 'staff' : 'people from outside')).join(' and ');
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-4 border-b border-rule py-3">
      <span>
        <Link to={`/workshop/${form.key}`} className="subject text-[17px] no-underline hover:underline">
          {form.title}
        </Link>
        <span className="block text-soft">
          {state} · for {doors || 'nobody'} · {form.asks.length} {form.asks.length === 1 ? 'question' : 'questions'} ·{' '}
          {form.requests} {form.requests === 1 ? 'request' : 'requests'}
          {form.own.length > 0 ? ` · its own ${form.own.map((part) => OWN_WORDS[part]).join(' and ')}` : ''}
        </span>
        {error || duplicated.error ? <Trouble error={error ?? duplicated.error} /> : null}
      </span>
      <span className="flex gap-2">
        <Button disabled={duplicated.isLoading || duplicated.isSuccess} onClick={() => void copy()}>
          Duplicate
        </Button>
        {form.stopped ? (
          <>
            <Button onClick={() => void put('in use', `“${form.title}” is in use again.`)}>Take up again</Button>
            <Button
              look="refuse"
              onClick={() =>
                void put(
                  'deleted',
                  isOnly
                    ? `“${form.title}” is gone. Its requests stay; nothing asks into this register now.`
                    : `“${form.title}” is gone. Its requests stay.`,
                )
              }
            >
              Delete
            </Button>
          </>
        ) : (
          <Button onClick={() => void put('stopped', `Nobody can ask by “${form.title}” any more. Its requests stay.`)}>
            Stop
          </Button>
        )}
      </span>
    </li>
  );
}

/** Each field, and which form asks for it. */
function Fields({ register }: { register: Register }) {
  const [change, { error }] = workshopApi.useChangeRegisterMutation();
  const { forms, fields, left, stays } = register;
  const leave = async (key: string, isLeaving: boolean): Promise<void> => {
    const { name, prefix, deskGroups, staysIn, stages, version } = register;
    const label = fields.find((field) => field.key === key)?.label ?? key;
    const body = {
      ...{ name, prefix, deskGroups, staysIn, note: '' },
      left: isLeaving ? [...left, key] : left.filter((each) => each !== key),
      stages: [...stages],
    };
    const done = await change({ key: register.key, version, body });
    if (!('error' in done))
      toast(
        isLeaving
          ? `“${label}” has left. It stays with the requests that have it.`
          : `“${label}” is back in the register.`,
      );
  };
  return (
    <>
      <h2 className="section-head mt-9">What it keeps</h2>
      {error ? <Trouble error={error} /> : null}
      <div className="overflow-x-auto">
        <table className="w-full border-collapse">
          <thead>
            <tr className="border-b border-rule-strong text-left align-bottom text-[12.5px] text-soft">
              <th scope="col" className="py-1.5 pr-4 font-semibold">
                Field
              </th>
              {forms.map((form) => (
                <th key={form.key} scope="col" className="max-w-[9rem] px-2 py-1.5 text-center font-semibold">
                  {form.title}
                </th>
              ))}
              <th scope="col">
                <span className="sr-only">What can be done</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {fields.map((field) => {
              const isGone = left.includes(field.key);
              return (
                <tr key={field.key} className="border-b border-rule">
                  <th scope="row" className={`py-1.5 pr-4 text-left font-normal ${isGone ? 'text-soft' : ''}`}>
                    {field.label}{' '}
                    <span className="text-[13px] text-soft">
                      {field.source === 'asked' ? kindLabel(field.type.kind).toLowerCase() : SOURCE_WORDS[field.source]}
                    </span>
                  </th>
                  {forms.map((form) => (
                    <td key={form.key} className="px-2 text-center">
                      {form.asks.includes(field.key) ? 'asks' : <span className="text-soft">·</span>}
                    </td>
                  ))}
                  <td className="py-1 text-right text-[13px]">
                    {isGone ? (
                      <span className="text-soft">
                        has left ·{' '}
                        <button
                          type="button"
                          className="text-green underline"
                          onClick={() => void leave(field.key, false)}
                        >
                          Take back
                        </button>
                      </span>
                    ) : stays[field.key] === undefined ? (
                      <button
                        type="button"
                        className="text-green underline"
                        title="No form uses it. It stays with the requests that have it."
                        onClick={() => void leave(field.key, true)}
                      >
                        Let it leave
                      </button>
                    ) : null}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      {fields.length === 0 ? (
        <p className="py-3 text-soft">Nothing yet: the first release of a form brings its fields here.</p>
      ) : null}
    </>
  );
}

const SOURCE_WORDS = {
  'desk-only': 'desk-only',
  computed: 'computed',
  given: 'given out',
  carried: 'brought along',
} as const;

/** What was in force, the newest first, with the way back. */
function States({ register }: { register: Register }) {
  const [goBack, { error }] = workshopApi.useGoBackToStateMutation();
  const back = async (number: number): Promise<void> => {
    const done = await goBack({ key: register.key, number, version: register.version });
    if (!('error' in done)) toast(`Names, desk, stages and access are as in state ${number} again.`);
  };
  return (
    <>
      <h2 className="section-head mt-9">What it was</h2>
      {error ? <Trouble error={error} /> : null}
      <ol>
        {register.states.map((state, index) => (
          <li key={state.number} className="grid grid-cols-[6rem_minmax(0,1fr)_auto] gap-x-3 border-b border-rule py-2">
            <span>
              State {state.number}
              {index === 0 ? <span className="block text-[12.5px] text-green">in force</span> : null}
            </span>
            <span>
              {state.note || <span className="text-soft">no note</span>}
              <span className="block text-[13px] text-soft">
                {state.by ? `${state.by}, ` : ''}
                <DeskMoment at={state.at} />
              </span>
            </span>
            {index === 0 ? null : (
              <Button
                onClick={() => void back(state.number)}
                title="Names, letters, desk, stages and access; fields stay."
              >
                Go back to it
              </Button>
            )}
          </li>
        ))}
      </ol>
    </>
  );
}
