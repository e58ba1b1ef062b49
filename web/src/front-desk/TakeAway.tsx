import { momentIn } from '@tolvek/words/speech';
import { useState } from 'react';
import { badNews } from '../ui/news.ts';
import { saveFile } from '../ui/saveFile.ts';
import { meApi } from '../wire/me.ts';
import { language, say, told } from '../wire/words.ts';
import type { Own } from './ownAsFile.ts';

/** A request to be taken along: as pages, and its days for one’s own calendar. */
export function TakeAway({ request }: { request: Own }) {
  const { data: me } = meApi.useMeQuery();
  const [isMaking, setMaking] = useState(false);
  const zone = me?.desk.zone ?? 'UTC';
  const paper = async (): Promise<void> => {
    setMaking(true);
    try {
      const { asDocument, printed } = await import('./ownAsFile.ts');
      const document = asDocument(request, {
        told,
        answers: say('desk:yourAnswers'),
        messages: say('desk:messages'),
        sentOn: say('desk:sentOn', { at: momentIn(language(), 'moment', request.sentAt, zone) }),
        messageBy: ({ mine, from, at }) =>
          say('desk:messageBy', { from: mine ? say('desk:fromYou') : from || say('desk:fromUs'), at }),
      });
      saveFile(`${request.number}.pdf`, 'application/pdf', await printed(document));
    } catch {
      badNews(say('desk:noPdf'));
    }
    setMaking(false);
  };
  const days = async (): Promise<void> => {
    const { asCalendar } = await import('./ownAsFile.ts');
    const text = asCalendar(request, { zone, link: `${location.origin}/my/${request.number}`, now: Date.now(), told });
    saveFile(`${request.number}.ics`, 'text/calendar', text);
  };
  return (
    <p className="mt-6 flex flex-wrap gap-x-6 gap-y-2">
      <button type="button" className="text-green underline" disabled={isMaking} onClick={() => void paper()}>
        {say(isMaking ? 'desk:oneMoment' : 'desk:savePdf')}
      </button>
      {request.dates.length > 0 ? (
        <button type="button" className="text-green underline" onClick={() => void days()}>
          {say('desk:saveDates')}
        </button>
      ) : null}
    </p>
  );
}
