import type { BodyOf } from '@tolvek/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { DialogFrame } from '../ui/DialogFrame.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { say } from '../wire/words.ts';
import { floorApi } from './endpoints.ts';
import type { ChosenRow } from './Ledger.tsx';
import { NotSo } from './NotSo.tsx';
import { useForetold } from './useForetold.ts';

interface WriteSeveralProps {
  readonly rows: readonly ChosenRow[];
  readonly drop: (rows: readonly ChosenRow[]) => void;
}

/** Writes the same to all that is chosen: to whoever asked, each alone, or as a note. */
export function WriteSeveral({ rows, drop }: WriteSeveralProps) {
  const [open, setOpen] = useState(false);
  // What was typed stays while the dialog is closed.
  const [text, setText] = useState('');
  return (
    <DialogFrame
      open={open}
      onOpenChange={setOpen}
      title={say('floor:writeSeveral', { count: rows.length })}
      trigger={<Button disabled={rows.length === 0}>{say('floor:writeChosen')}</Button>}
    >
      {open ? <Writing {...{ rows, drop, text, setText }} close={() => setOpen(false)} /> : null}
    </DialogFrame>
  );
}

type Visibility = BodyOf<'writeMany'>['visibility'];

interface WritingProps extends WriteSeveralProps {
  readonly text: string;
  readonly setText: (text: string) => void;
  readonly close: () => void;
}

function Writing({ rows, drop, text, setText, close }: WritingProps) {
  const [visibility, setVisibility] = useState<Visibility>('requester');
  const [look, looking] = floorApi.useWriteManyMutation();
  const [send, { error, isLoading }] = floorApi.useWriteManyMutation();
  // Pressed twice, it is sent once.
  const [once, setOnce] = useState(() => crypto.randomUUID());
  // To how many it would go is told before anything does.
  const requests = rows.map(({ number }) => number);
  const [plan, setPlan] = useForetold({ requests, visibility }, (asked) =>
    look({ once: crypto.randomUUID(), body: { ...asked, text: '–', apply: false } }),
  );
  const put = async (): Promise<void> => {
    const done = await send({
      once,
      body: { requests, visibility, text: text.trim(), apply: true },
    });
    if (!done.data) return;
    setOnce(crypto.randomUUID());
    const left = new Set(done.data.refused.map(({ number }) => number));
    drop(rows.filter(({ number }) => !left.has(number)));
    toast(say('floor:wroteSeveral', { count: done.data.written }));
    if (done.data.written > 0 && left.size === 0) setText('');
    if (left.size === 0) close();
    else setPlan(done.data);
  };
  const wrong = error ?? looking.error;
  return (
    <>
      <fieldset className="mt-3">
        <legend className="sr-only">{say('floor:writeTo')}</legend>
        {(['requester', 'internal'] as const).map((each) => (
          <label key={each} className="flex min-h-[28px] items-baseline gap-2">
            <input
              type="radio"
              name="visibility"
              className="accent-green"
              checked={visibility === each}
              onChange={() => setVisibility(each)}
            />
            {say(`floor:writes.${each}`)}
          </label>
        ))}
      </fieldset>
      <textarea
        className="input mt-2 min-h-28"
        maxLength={5_000}
        aria-label={say('floor:whatIsWritten')}
        value={text}
        onChange={({ target }) => setText(target.value)}
      />
      {plan ? <NotSo refused={plan.refused} /> : null}
      {wrong ? <Trouble error={wrong} /> : null}
      <p className="mt-4 flex flex-wrap gap-3">
        <Button
          look="main"
          disabled={isLoading || text.trim() === '' || !plan || plan.written === 0}
          onClick={() => void put()}
        >
          {say(`floor:writeNow.${visibility}`, { count: plan?.written ?? rows.length })}
        </Button>
        <Button onClick={close}>{say('common:cancel')}</Button>
      </p>
    </>
  );
}
