import type { AnswerOf } from '@tolvek/contract';
import { wordsIn } from '@tolvek/core/people';
import { MOST_OF_REPORT, type ReportDesign, type ReportSend } from '@tolvek/core/report';
import { useDeferredValue, useId, useState } from 'react';
import { say } from '../../wire/words.ts';
import { NamedWho } from '../NamedWho.tsx';
import { viewsApi } from '../views/endpoints.ts';
import { Part } from '../views/Part.tsx';
import { newSend, putAt } from './reportDraft.ts';

interface SendsProps {
  readonly report: ReportDesign;
  readonly calendars: AnswerOf<'reports'>['calendars'];
  readonly names: Readonly<Record<string, string>>;
  readonly called: (word: string, name: string) => void;
  /** Whose rights it is frozen with. */
  readonly owner: string;
  readonly set: (report: ReportDesign) => void;
}

/** To whom a report is sent, each way a part of its sentence. */
export function ReportSends({ report, calendars, names, called, owner, set }: SendsProps) {
  const { sends } = report;
  const nameOf = (word: string): string => names[word] ?? word.replace('@', '');
  const put = (at: number, send: ReportSend | null): void => set({ ...report, sends: putAt(sends, at, send) });
  const [first] = calendars;
  const places = sends.length < MOST_OF_REPORT.sends && first ? [...sends, null] : sends;
  return places.map((send, at) => (
    // biome-ignore lint/suspicious/noArrayIndexKey: a way is known by its place
    <span key={at}>
      {', '}
      <Part
        isFaint={send === null}
        label={say('reports:editSend')}
        words={
          send === null
            ? say('reports:addSend')
            : say('reports:saysSend', {
                to: wordsIn(send.to).map(nameOf),
                calendar: calendars.find(({ key }) => key === send.calendar)?.name ?? send.calendar,
              })
        }
      >
        <SendEditor
          send={send ?? newSend(first?.key ?? '')}
          {...{ calendars, names, called, owner }}
          put={(next) => put(at, next)}
          isNew={send === null}
        />
      </Part>
    </span>
  ));
}

interface SendEditorProps extends Pick<SendsProps, 'calendars' | 'names' | 'called' | 'owner'> {
  readonly send: ReportSend;
  readonly isNew: boolean;
  readonly put: (send: ReportSend | null) => void;
}

function SendEditor({ send, calendars, names, called, owner, isNew, put }: SendEditorProps) {
  const id = useId();
  const [find, setFind] = useState('');
  const looking = useDeferredValue(find.trim());
  const { data } = viewsApi.useNameableQuery({ query: { find: looking } });
  return (
    <div className="flex flex-col gap-3">
      <p className="text-[13px] text-soft">{say('reports:sendHint', { name: owner })}</p>
      <label className="flex items-center gap-3">
        <span className="w-16 text-soft">{say('reports:sendHours')}</span>
        <select
          className="input"
          value={send.calendar}
          onChange={({ target }) => put({ ...send, calendar: target.value })}
        >
          {calendars.map(({ key, name }) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <div>
        <span className="text-soft">{say('reports:sendTo')}</span>
        <NamedWho
          {...{ id, names, called }}
          words={wordsIn(send.to)}
          put={(words) => put({ ...send, to: { in: { anyOf: [...words] }, outOf: [] } })}
          found={data}
          find={setFind}
          dropped={(name) => say('reports:dropWho', { name })}
        />
      </div>
      {isNew ? null : (
        <button type="button" className="self-start text-green underline" onClick={() => put(null)}>
          {say('reports:removeSend')}
        </button>
      )}
    </div>
  );
}
