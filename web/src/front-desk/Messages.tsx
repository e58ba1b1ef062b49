import type { AnswerOf } from '@tolvek/contract';
import type { KnownFile } from '@tolvek/core/register';
import { useState } from 'react';
import { MessageFiles, SentFiles } from '../fields/MessageFiles.tsx';
import { useOnTheWay } from '../fields/useOnTheWay.ts';
import { Button } from '../ui/Button.tsx';
import { say } from '../wire/words.ts';

interface MessagesProps {
  /** `note`: only the desk reads it; `alone`: of those from outside only whoever looks. */
  readonly messages: readonly (AnswerOf<'follow'>['messages'][number] & {
    readonly note?: boolean;
    readonly alone?: boolean;
  })[];
  readonly fileAt: (id: string) => string;
}

/** What was written about a request, in the order of time. */
export const Messages = ({ messages, fileAt }: MessagesProps) => (
  <ul>
    {messages.map((message) => (
      <li key={message.at + message.text} className="border-b border-rule py-3">
        <span className="text-[14px] text-soft">
          {say('desk:messageBy', {
            from: message.mine ? say('desk:fromYou') : message.from || say('desk:fromUs'),
            at: message.at,
          })}
          {message.note ? ` · ${say('desk:noteToDesk')}` : message.alone ? ` · ${say('desk:toYouAlone')}` : ''}
        </span>
        <p className="whitespace-pre-line">{message.text}</p>
        <SentFiles files={message.files} fileAt={fileAt} />
      </li>
    ))}
  </ul>
);

interface ReplyProps {
  readonly label: string;
  readonly send: (text: string, files: readonly string[]) => Promise<unknown>;
  /** Where files for a message are sent to. */
  readonly filesTo: string;
}

/** Writes about a request, with files. */
export function Reply({ label, send, filesTo }: ReplyProps) {
  const [text, setText] = useState('');
  const [files, setFiles] = useState<readonly KnownFile[]>([]);
  const [sending, setSending] = useState(false);
  const { isOnTheWay, follow } = useOnTheWay();
  const post = async (event: React.FormEvent): Promise<void> => {
    event.preventDefault();
    setSending(true);
    try {
      await send(
        text,
        files.map(({ ref }) => ref),
      );
      setText('');
      setFiles([]);
    } catch {
      // Shown above; what was typed stays.
    }
    setSending(false);
  };
  return (
    <form onSubmit={post} className="mt-4">
      <label htmlFor="message" className="font-semibold">
        {label}
      </label>
      <textarea
        id="message"
        rows={3}
        className="input mt-1.5"
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <MessageFiles id="message-files" address={filesTo} files={files} set={setFiles} follow={follow} />
      <Button type="submit" className="mt-2 min-h-11 px-5" disabled={sending || isOnTheWay || text.trim() === ''}>
        {say(isOnTheWay ? 'common:fileComing' : 'desk:sendMessage')}
      </Button>
    </form>
  );
}
