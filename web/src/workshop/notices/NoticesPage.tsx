import { MOST_NOTICES, OCCASIONS, type Occasion, USUAL_KINDS } from '@tolvek/core/telling';
import { say, told } from '../../wire/words.ts';
import { useBinder } from '../binder.ts';
import { FindingLine } from '../Findings.tsx';
import { OwnOrUsual } from '../Reaches.tsx';
import { NoticeItem } from './NoticeItem.tsx';
import { addNotice, firstOccasion, freshNotice, noticesOf } from './noticeEdits.ts';
import { UsualItem } from './UsualItem.tsx';
import { useOpenNotice } from './useNoticeNames.ts';

/** What a form tells whom by email: what a coordinator writes, and what is usual. */
export function NoticesPage() {
  const { editing, form } = useBinder();
  const { draft, change } = editing;
  const { rules } = noticesOf(draft);
  const [open, setOpen] = useOpenNotice();
  return (
    <>
      <h2 className="section-head">{say('notices:ownHead')}</h2>
      <OwnOrUsual part="notices" draft={draft} change={change} others={form.others} />
      <p className="mt-2 text-soft">{say('notices:ownHint')}</p>
      {rules.length === 0 ? <p className="mt-2">{say('notices:ownNone')}</p> : null}
      <ol aria-label={say('notices:ownHead')}>
        {rules.map((rule, place) => (
          <NoticeItem
            key={rule.key}
            {...{ rule, place }}
            of={rules.length}
            isOpen={open === rule.key}
            open={(isOpen) => setOpen(isOpen ? rule.key : null)}
          />
        ))}
      </ol>
      <NoticeFindings />
      {rules.length < MOST_NOTICES ? (
        <p className="mt-4">
          <select
            className="input w-auto"
            aria-label={say('notices:add')}
            value=""
            onChange={(event) => {
              const is = event.target.value as Occasion['is'];
              setOpen(freshNotice(draft));
              const words = { name: say(`notices:name.${is}`), text: say('notices:freshText') };
              change((before) => addNotice(before, is, words));
            }}
          >
            <option value="">{say('notices:add')}</option>
            {OCCASIONS.filter((is) => firstOccasion(is, draft) !== null).map((is) => (
              <option key={is} value={is}>
                {say(`notices:pick.${is}`)}
              </option>
            ))}
          </select>
        </p>
      ) : null}
      <h2 className="section-head mt-8">{say('notices:usualHead')}</h2>
      <p className="mt-2 text-soft">{say('notices:usualHint')}</p>
      <ol className="mt-2" aria-label={say('notices:usualHead')}>
        {USUAL_KINDS.map((kind) => (
          <UsualItem key={kind} kind={kind} isOpen={open === kind} open={(isOpen) => setOpen(isOpen ? kind : null)} />
        ))}
      </ol>
    </>
  );
}

/** What is wrong or doubtful in the notices. */
function NoticeFindings() {
  const { editing, form, keeping } = useBinder();
  return keeping.findings
    .filter(({ page }) => page === 'notices')
    .map((finding) => (
      <FindingLine key={told(finding.message)} finding={finding} formKey={form.key} change={editing.change} />
    ));
}
