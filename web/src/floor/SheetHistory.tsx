import type { AnswerOf } from '@tolvek/contract';
import type { KnownFile } from '@tolvek/core/register';
import { useState } from 'react';
import { MessageFiles, SentFiles } from '../fields/MessageFiles.tsx';
import { useOnTheWay } from '../fields/useOnTheWay.ts';
import { Agreed } from '../ui/Agreed.tsx';
import { Button } from '../ui/Button.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { DeskMoment } from '../wire/DeskMoment.tsx';
import { say, told } from '../wire/words.ts';
import { floorApi } from './endpoints.ts';

type SheetData = AnswerOf<'sheet'>;

/**
 * All that happened, newest last, with a place to write a note for the desk or a message to the
 * requester.
 */
export function SheetHistory({ sheet }: { sheet: SheetData }) {
  return (
    <>
      <h3 className="section-head mt-6">{say('floor:history')}</h3>
      <ol>
        {sheet.history.map((entry) => (
          <li key={entry.id} className="border-b border-rule py-2">
            <p className="flex justify-between gap-3 text-[12.5px] text-soft">
              <span>{entry.who}</span>
              <DeskMoment at={entry.at} />
            </p>
            <p>{told(entry.what)}</p>
            {entry.changes.map((change) => (
              <p key={change.label} className="text-[13px]">
                {change.label}:{' '}
                <span className="text-soft">{change.before ? told(change.before) : say('floor:emptyValue')}</span> →{' '}
                {change.after ? told(change.after) : say('floor:emptyValue')}
              </p>
            ))}
            <Agreed consent={entry.agreed} />
            {entry.comment ? (
              <p
                className={`mt-1 border-l-2 pl-3 whitespace-pre-line ${entry.comment.visibility === 'internal' ? 'border-brass-mark' : 'border-green'}`}
              >
                {entry.comment.text}
              </p>
            ) : null}
            {entry.comment ? (
              <SentFiles
                files={entry.comment.files}
                fileAt={(id) => `/api/requests/${encodeURIComponent(sheet.number)}/files/${id}`}
              />
            ) : null}
          </li>
        ))}
      </ol>
      {sheet.may.history ? null : <p className="mt-2 text-[13.5px] text-soft">{say('floor:noHistory')}</p>}
      {sheet.may.change ? (
        <Write number={sheet.number} outside={sheet.handler?.outside ? sheet.handler.name : null} />
      ) : null}
    </>
  );
}

/** `outside`: what somebody from outside is called who handles it. */
function Write({ number, outside }: { number: string; outside: string | null }) {
  const [comment, { isLoading, error }] = floorApi.useCommentMutation();
  const [text, setText] = useState('');
  const [files, setFiles] = useState<readonly KnownFile[]>([]);
  const post = async (visibility: 'internal' | 'requester' | 'handler'): Promise<void> => {
    const done = await comment({ number, body: { text, visibility, files: files.map(({ ref }) => ref) } });
    if ('error' in done) return;
    setText('');
    setFiles([]);
  };
  const { isOnTheWay, follow } = useOnTheWay();
  const idle = isLoading || isOnTheWay || text.trim() === '';
  return (
    <div className="mt-4">
      <label htmlFor="write" className="font-semibold">
        {say('floor:noteOrMessage')}
      </label>
      <textarea
        id="write"
        rows={3}
        className="input mt-1"
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <MessageFiles
        id="write-files"
        address={`/api/requests/${encodeURIComponent(number)}/message-files`}
        files={files}
        set={setFiles}
        follow={follow}
      />
      {isOnTheWay ? <p role="status">{say('common:fileComing')}</p> : null}
      {error ? <Trouble error={error} /> : null}
      <div className="mt-2 flex flex-wrap gap-2">
        <Button disabled={idle} onClick={() => post('internal')}>
          {say('floor:saveNote')}
        </Button>
        <Button disabled={idle} onClick={() => post('requester')}>
          {say('floor:sendToRequester')}
        </Button>
        {outside === null ? null : (
          <Button disabled={idle} onClick={() => post('handler')}>
            {say('floor:sendToHandler', { name: outside })}
          </Button>
        )}
      </div>
    </div>
  );
}
