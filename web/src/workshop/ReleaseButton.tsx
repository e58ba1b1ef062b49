import type { AnswerOf } from '@tolvek/contract';
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { DialogFrame } from '../ui/DialogFrame.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { say } from '../wire/words.ts';
import { ChangeList } from './ChangeList.tsx';
import { ComputingAnew, type Work } from './ComputingAnew.tsx';
import { workshopApi } from './endpoints.ts';
import { Recomputing } from './Recomputing.tsx';
import { Replanning } from './Replanning.tsx';
import type { DraftEditing } from './useDraft.ts';

/** Releases the draft: first what would change, in words; then a note; then the next number. */
export function ReleaseButton({ form, editing }: { form: AnswerOf<'form'>; editing: DraftEditing }) {
  const [open, setOpen] = useState(false);
  const [note, setNote] = useState('');
  const [isRecomputed, setRecomputed] = useState(false);
  const [isReplanned, setReplanned] = useState(false);
  /** The long work that the release began, one after the other. */
  const [works, setWorks] = useState<readonly Work[]>([]);
  const [release, { isLoading, error, reset }] = workshopApi.useReleaseFormMutation();
  const next = (form.releases[0]?.number ?? 0) + 1;
  const errors = editing.findings.filter((finding) => finding.severity === 'error').length;
  const send = async (): Promise<void> => {
    const done = await release({
      key: form.key,
      version: editing.version,
      body: { note, recompute: isRecomputed, replan: isReplanned },
    });
    if ('error' in done || !done.data) return;
    editing.released(done.data.version);
    setOpen(false);
    setNote('');
    setRecomputed(false);
    setReplanned(false);
    toast(say('workshop:nowInForce', { number: done.data.number }));
    const { job, replanning } = done.data;
    setWorks([
      ...(job === null ? [] : [{ job, does: 'computes' as const }]),
      ...(replanning === null ? [] : [{ job: replanning, does: 'plans' as const }]),
    ]);
  };
  const [work] = works;
  if (work)
    return (
      <ComputingAnew key={work.job} {...work} ended={() => setWorks((all) => all.filter((each) => each !== work))} />
    );
  return (
    <DialogFrame
      open={open}
      onOpenChange={setOpen}
      reset={reset}
      trigger={<Button look="main">{say('workshop:releaseDraft')}</Button>}
      title={say('workshop:releaseAs', { number: next })}
    >
      {editing.changes.length === 0 ? (
        <p className="mt-3">{say('workshop:nothingToRelease', { number: next - 1 })}</p>
      ) : null}
      {editing.changes.length > 0 ? (
        <>
          <p className="mt-3 text-soft">
            {next === 1 ? say('workshop:firstChanges') : say('workshop:changesAgainst', { number: next - 1 })}
          </p>
          <ChangeList changes={editing.changes} />
          {form.pointedBy.length > 0 && editing.changes.some((change) => change.reaches === 'register') ? (
            <p className="mt-3 border-l-[3px] border-brass-mark bg-brass-wash px-3 py-1.5">
              {say('workshop:affectsReferring', { forms: form.pointedBy })}
            </p>
          ) : null}
          {form.others.length > 0 && editing.changes.some((change) => change.reaches === 'register') ? (
            <p className="mt-3 border-l-[3px] border-brass-mark bg-brass-wash px-3 py-1.5">
              {say('workshop:affectsOthers', { forms: form.others.map((other) => other.title) })}
            </p>
          ) : null}
          {next > 1 && open ? <Recomputing formKey={form.key} isRecomputed={isRecomputed} set={setRecomputed} /> : null}
          {next > 1 && open ? <Replanning formKey={form.key} isReplanned={isReplanned} set={setReplanned} /> : null}
          <p className="mt-3 text-soft">{say('workshop:requestsKeep')}</p>
          <label htmlFor="release-note" className="mt-4 block font-semibold">
            {say('workshop:note')} <span className="font-normal text-soft">{say('workshop:noteHintBraces')}</span>
          </label>
          <input
            id="release-note"
            className="input mt-1"
            value={note}
            onChange={(event) => setNote(event.target.value)}
          />
        </>
      ) : null}
      {errors > 0 ? (
        <p className="mt-4 font-semibold text-brick">{say('workshop:correctErrors', { count: errors })}</p>
      ) : null}
      {error ? (
        <div className="mt-4">
          <Trouble error={error} />
        </div>
      ) : null}
      <div className="mt-5 flex gap-3">
        <Button
          look="main"
          disabled={isLoading || errors > 0 || editing.changes.length === 0 || editing.state !== 'kept'}
          onClick={send}
        >
          {say('workshop:releaseNow', { number: next })}
        </Button>
        <Dialog.Close asChild>
          <Button>{say('workshop:notYet')}</Button>
        </Dialog.Close>
      </div>
    </DialogFrame>
  );
}
