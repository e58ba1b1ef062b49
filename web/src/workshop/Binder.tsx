import type { AnswerOf } from '@tolvek/contract';
import { useMemo, useState } from 'react';
import { Link, Navigate, NavLink, useParams } from 'react-router';
import { type AroundFields, AroundFieldsProvider, NOTHING_KNOWN } from '../fields/input.ts';
import { Button } from '../ui/Button.tsx';
import { ToSignIn } from '../ui/ToSignIn.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { useTitle } from '../ui/useTitle.ts';
import { meApi } from '../wire/me.ts';
import { say } from '../wire/words.ts';
import { BinderProvider } from './binder.ts';
import type { Editing } from './editing.ts';
import { workshopApi } from './endpoints.ts';
import { Findings } from './Findings.tsx';
import { Kept } from './Kept.tsx';
import { WrittenIn } from './languages/useOtherLanguages.ts';
import { Proof } from './Proof.tsx';
import { PAGES } from './pages.ts';
import { ReleaseButton } from './ReleaseButton.tsx';
import { useDraft } from './useDraft.ts';
import { useProof } from './useProof.ts';

/**
 * A form as a binder: contents in the order of work, the page, the proof beside it, the findings
 * along the bottom.
 */
export function Binder() {
  const { key = '' } = useParams();
  const { data: me } = meApi.useMeQuery();
  const { data: form, error, refetch } = workshopApi.useFormQuery({ key });
  if (me && !me.person) return <ToSignIn />;
  if (error)
    return (
      <main className="p-6">
        <Trouble error={error} again={refetch} />
      </main>
    );
  return form ? (
    <OpenBinder key={form.key} form={form} />
  ) : (
    <p className="p-6 text-soft">{say('workshop:openingBinder')}</p>
  );
}

function OpenBinder({ form }: { form: AnswerOf<'form'> }) {
  const { page = 'questions' } = useParams();
  const editing = useDraft(form);
  const { draft, change } = editing;
  const proof = useProof(draft, form);
  const released = useMemo(() => new Set(form.released), [form.released]);
  const shared: Editing = {
    draft,
    change,
    proof,
    groups: form.groups,
    vocabularies: form.vocabularies,
    registers: form.registers,
    released,
    others: form.others,
  };
  const around = useMemo((): AroundFields => ({ ...NOTHING_KNOWN, ...proof.facts }), [proof.facts]);
  const binder = { form, keeping: editing, editing: shared };
  const pages = PAGES.filter((each) => form.register.holds === 'requests' || !each.ofRequests);
  const chosen = pages.find((each) => each.key === page);
  const contents = pages.filter(({ under }) => under === undefined);
  const within = chosen?.under ?? page;
  const [aside, setAside] = useState<'own' | 'proof'>('own');
  useTitle(`${draft.title}: ${chosen?.label ?? ''}`);
  if (!chosen) return <Navigate to={`/workshop/${form.key}`} replace />;
  const { Beside } = chosen;
  const errorsOn = (tells: string | undefined): number =>
    editing.findings.filter((finding) => finding.page === tells && finding.severity === 'error').length;
  return (
    <WrittenIn.Provider value={draft.written}>
      <div className="flex h-[calc(100dvh-46px)] flex-col">
        <div
          className={`grid min-h-0 flex-1 grid-cols-[176px_minmax(0,1fr)_340px] xl:grid-cols-[196px_minmax(0,1fr)_372px] ${chosen.wide ? '!grid-cols-[176px_minmax(0,1fr)_300px]' : ''}`}
        >
          <nav aria-label={say('workshop:contents')} className="overflow-auto border-r border-rule pt-5 pl-5">
            <h2 className="pr-3">{draft.title || say('workshop:noTitleYet')}</h2>
            <ol className="mt-2.5">
              {contents.map((each, index) => (
                <li key={each.key}>
                  <NavLink
                    to={`/workshop/${form.key}/${each.key}`}
                    className={`-ml-2 grid grid-cols-[22px_1fr_auto] border-l-[3px] py-1.5 pr-3 pl-2 text-ink no-underline ${each.key === within ? 'border-green bg-sheet font-semibold' : 'border-transparent'}`}
                    aria-current={each.key === within ? 'page' : undefined}
                  >
                    <i className="font-serif text-[13px] text-soft not-italic">{index + 1}</i>
                    {say(each.label)}
                    {errorsOn(each.tells) > 0 ? (
                      <em className="text-[12px] text-brick not-italic">{errorsOn(each.tells)}</em>
                    ) : null}
                  </NavLink>
                </li>
              ))}
            </ol>
            <p className="mt-4 pr-3 text-[13px] text-soft">
              {say('workshop:belongsTo')}{' '}
              <Link to={`/workshop/registers/${form.register.key}`} className="text-ink">
                {form.register.name}
              </Link>
              {form.others.length > 0 ? ` ${say('workshop:alsoForms', { count: form.others.length })}` : ''}
              {form.stopped ? <span className="block text-brick">{say('workshop:stopped')}</span> : null}
            </p>
            <Kept editing={editing} className="mt-5 pr-4" />
          </nav>
          <main className="min-h-0 overflow-auto px-[26px] pt-5 pb-10">
            <div className="mb-4 flex flex-wrap items-baseline gap-x-4 gap-y-2">
              <h1>{say(chosen.label)}</h1>
              <div className="ml-auto flex gap-2">
                <Button disabled={!editing.undo} onClick={() => editing.undo?.()}>
                  {say('workshop:undo')}
                </Button>
                {editing.redo ? <Button onClick={() => editing.redo?.()}>{say('workshop:redo')}</Button> : null}
                <ReleaseButton form={form} editing={editing} />
              </div>
            </div>
            <AroundFieldsProvider value={around}>
              <BinderProvider value={binder}>
                <chosen.Page />
              </BinderProvider>
            </AroundFieldsProvider>
          </main>
          <aside
            aria-label={say(Beside && aside === 'own' ? (chosen.beside ?? 'workshop:proof') : 'workshop:proof')}
            className="min-h-0 overflow-auto border-l border-rule-strong bg-well px-5 py-4 contain-content"
          >
            {Beside ? (
              <p className="mb-3 flex gap-4 border-b border-rule text-[13px]">
                {(['own', 'proof'] as const).map((each) => (
                  <button
                    key={each}
                    type="button"
                    aria-pressed={aside === each}
                    className={`-mb-px border-b-2 pb-1.5 ${aside === each ? 'border-green font-semibold' : 'border-transparent text-soft'}`}
                    onClick={() => setAside(each)}
                  >
                    {say(each === 'own' ? (chosen.beside ?? 'workshop:proof') : 'workshop:proof')}
                  </button>
                ))}
              </p>
            ) : null}
            {Beside && aside === 'own' ? (
              <BinderProvider value={binder}>
                <Beside />
              </BinderProvider>
            ) : (
              <Proof editing={editing} form={form} proof={proof} />
            )}
          </aside>
        </div>
        <Findings findings={editing.findings} formKey={form.key} change={change} />
      </div>
    </WrittenIn.Provider>
  );
}
