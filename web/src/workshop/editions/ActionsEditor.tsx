import { pathName } from '@tolvek/core/approval';
import { actionsIn, addedParts, type Edition, type Instruction, type NamedAction } from '@tolvek/core/form';
import type { Field } from '@tolvek/core/register';
import { say, told } from '../../wire/words.ts';
import { useBinder } from '../binder.ts';
import { freshId } from '../edits.ts';

interface ActionsEditorProps {
  readonly edition: Edition;
  readonly part: Instruction;
  readonly set: (actions: readonly NamedAction[]) => void;
}

/** The buttons that stand with some words beside a request, for whoever may only read it as well. */
export function ActionsEditor({ edition, part, set }: ActionsEditorProps) {
  const { draft } = useBinder().editing;
  const { actions = [] } = part;
  const ofKind = (kind: 'people' | 'person'): readonly Field[] => draft.fields.filter(({ type }) => type.kind === kind);
  const [lists, persons] = [ofKind('people'), ofKind('person')];
  const change = (id: string, next: (action: NamedAction) => NamedAction): void =>
    set(actions.map((each) => (each.id === id ? next(each) : each)));
  const add = (does: string): void => {
    const words = addedParts(edition.differences).filter((each) => each.part === 'instruction');
    const id = freshId(
      'button',
      actionsIn(words).map((each) => each.id),
    );
    const [list] = lists;
    if (does === 'ask') set([...actions, { id, does, label: say('editions:button.askFirst'), asks: '' }]);
    else if (does === 'begin')
      set([
        ...actions,
        { id, does, label: say('editions:button.beginFirst'), path: draft.approval.paths[0]?.id ?? '' },
      ]);
    else if (does === 'take-part' && list)
      set([
        ...actions,
        {
          ...{ id, does, field: list.key },
          ...{ label: say('editions:button.takeFirst'), back: say('editions:button.backFirst') },
        },
      ]);
  };
  return (
    <>
      <span className="pt-1.5 text-soft">{say('editions:button.beside')}</span>
      <div className="flex flex-col items-start gap-2">
        {actions.map((action) => (
          <fieldset key={action.id} className="flex w-full flex-wrap items-center gap-2">
            <legend className="sr-only">{action.label}</legend>
            <input
              className="input w-44"
              aria-label={say('editions:button.label')}
              maxLength={200}
              value={action.label}
              onChange={({ target: { value } }) => change(action.id, (each) => ({ ...each, label: value }))}
            />
            {action.does === 'take-part' ? (
              <>
                <label htmlFor={`${part.id}-${action.id}-in`} className="text-soft">
                  {say('editions:button.entersIn')}
                </label>
                <Chosen
                  id={`${part.id}-${action.id}-in`}
                  value={action.field}
                  fields={lists}
                  choose={(field) => change(action.id, (each) => ({ ...each, field }) as NamedAction)}
                />
                <label className="flex items-center gap-2 text-soft">
                  {say('editions:button.takenBack')}
                  <input
                    className="input w-44"
                    maxLength={200}
                    value={action.back}
                    onChange={({ target: { value } }) =>
                      change(action.id, (each) => ({ ...each, back: value }) as NamedAction)
                    }
                  />
                </label>
              </>
            ) : action.does === 'begin' ? (
              <>
                <label htmlFor={`${part.id}-${action.id}-by`} className="text-soft">
                  {say('editions:button.byPath')}
                </label>
                <Chosen
                  id={`${part.id}-${action.id}-by`}
                  value={action.path}
                  fields={draft.approval.paths.map((path) => ({ key: path.id, label: told(pathName(path)) }))}
                  choose={(path) => change(action.id, (each) => ({ ...each, path }) as NamedAction)}
                />
              </>
            ) : (
              <>
                <label htmlFor={`${part.id}-${action.id}-to`} className="text-soft">
                  {say('editions:button.putTo')}
                </label>
                <Chosen
                  id={`${part.id}-${action.id}-to`}
                  value={action.asks}
                  fields={persons}
                  none={say('editions:button.whoWorks')}
                  choose={(asks) => change(action.id, (each) => ({ ...each, asks }) as NamedAction)}
                />
              </>
            )}
            <button
              type="button"
              className="size-6 shrink-0 text-soft hover:text-brick"
              aria-label={say('editions:takeBack', { what: action.label })}
              onClick={() => set(actions.filter((each) => each !== action))}
            >
              ×
            </button>
          </fieldset>
        ))}
        <select
          className="input w-auto"
          aria-label={say('editions:button.add')}
          value=""
          onChange={({ target: { value } }) => add(value)}
        >
          <option value="">{say('editions:button.add')}</option>
          <option value="take-part" disabled={lists.length === 0}>
            {say(lists.length === 0 ? 'editions:button.noList' : 'editions:button.takePart')}
          </option>
          <option value="begin">{say('editions:button.begin')}</option>
          <option value="ask">{say('editions:button.ask')}</option>
        </select>
        <span className="text-[13px] text-soft">{say('editions:button.hint')}</span>
      </div>
    </>
  );
}

/** One of some fields, or none of them where that is said; one that is gone is shown as such. */
function Chosen({
  id,
  value,
  fields,
  none,
  choose,
}: {
  id: string;
  value: string;
  fields: readonly Pick<Field, 'key' | 'label'>[];
  none?: string;
  choose: (key: string) => void;
}) {
  const isThere = fields.some(({ key }) => key === value) || (none !== undefined && value === '');
  return (
    <select id={id} className="input w-auto" value={value} onChange={(event) => choose(event.target.value)}>
      {none === undefined ? null : <option value="">{none}</option>}
      {isThere ? null : <option value={value}>?</option>}
      {fields.map(({ key, label }) => (
        <option key={key} value={key}>
          {label}
        </option>
      ))}
    </select>
  );
}
