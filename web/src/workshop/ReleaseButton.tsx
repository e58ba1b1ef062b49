import type { AnswerOf } from '@tolvek/contract';
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { DialogFrame } from '../ui/DialogFrame.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { ChangeList } from './ChangeList.tsx';
import { ComputingAnew } from './ComputingAnew.tsx';
import { workshopApi } from './endpoints.ts';
import { Recomputing } from './Recomputing.tsx';
import type { DraftEditing } from './useDraft.ts';

/** Releases the draft: first what would change, in words; then a note; then the next number. */
export function ReleaseButton({ form, editing }: { form: AnswerOf<'form'>; editing: DraftEditing }) {
  const [open, setOpen] = useState(false);
  const [note, setNote] = useState('');
  const [isRecomputed, setRecomputed] = useState(false);
  const [job, setJob] = useState<string | null>(null);
  const [release, { isLoading, error, reset }] = workshopApi.useReleaseFormMutation();
  const next = (form.releases[0]?.number ?? 0) + 1;
  const errors = editing.findings.filter((finding) => finding.severity === 'error').length;
  const send = async (): Promise<void> => {
    const done = await release({ key: form.key, version: editing.version, body: { note, recompute: isRecomputed } });
    if ('error' in done || !done.data) return;
    editing.released(done.data.version);
    setOpen(false);
    setNote('');
    setRecomputed(false);
    toast(`Release ${done.data.number} is in force. The doors lead to it from now on.`);
    setJob(done.data.job);
  };
  if (job !== null) return <ComputingAnew job={job} ended={() => setJob(null)} />;
  return (
    <DialogFrame
      open={open}
      onOpenChange={(shown) => {
        setOpen(shown);
        reset();
      }}
      trigger={<Button look="main">Release {next} …</Button>}
      title={`Release ${next}`}
    >
      {editing.changes.length === 0 ? (
        <p className="mt-3">The draft is the same as release {next - 1}. There is nothing to release.</p>
      ) : null}
      {editing.changes.length > 0 ? (
        <>
          <p className="mt-3 text-soft">Against {next === 1 ? 'nothing' : `release ${next - 1}`}, this changes:</p>
          <ChangeList changes={editing.changes} />
          {form.pointedBy.length > 0 && editing.changes.some((change) => change.reaches === 'register') ? (
            <p className="mt-3 border-l-[3px] border-brass-mark bg-brass-wash px-3 py-1.5">
              What reaches the register also reaches {form.pointedBy.map((title) => `“${title}”`).join(', ')}:{' '}
              {form.pointedBy.length === 1 ? 'its' : 'their'} references point here.
            </p>
          ) : null}
          {form.others.length > 0 && editing.changes.some((change) => change.reaches === 'register') ? (
            <p className="mt-3 border-l-[3px] border-brass-mark bg-brass-wash px-3 py-1.5">
              What reaches the register stands in the drafts of{' '}
              {form.others.map((other) => `“${other.title}”`).join(', ')} as well, and is asked there with the next
              release; names and options are called so at once.
            </p>
          ) : null}
          {next > 1 && open ? <Recomputing formKey={form.key} isRecomputed={isRecomputed} set={setRecomputed} /> : null}
          <p className="mt-3 text-soft">Requests that have arrived keep the release they came by.</p>
          <label htmlFor="release-note" className="mt-4 block font-semibold">
            Note <span className="font-normal text-soft">(why; others read it later)</span>
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
        <p className="mt-4 font-semibold text-brick">
          {errors === 1 ? 'One error' : `${errors} errors`} among the findings must be mended first.
        </p>
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
          Release {next}
        </Button>
        <Dialog.Close asChild>
          <Button>Not yet</Button>
        </Dialog.Close>
      </div>
    </DialogFrame>
  );
}
