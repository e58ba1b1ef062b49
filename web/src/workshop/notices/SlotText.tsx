import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { EditorState } from '@codemirror/state';
import {
  Decoration,
  type DecorationSet,
  EditorView,
  keymap,
  MatchDecorator,
  ViewPlugin,
  type ViewUpdate,
  WidgetType,
} from '@codemirror/view';
import { useEffect, useRef } from 'react';

interface SlotTextProps {
  readonly name: string;
  readonly text: string;
  readonly set: (text: string) => void;
  /** What something that is put in is called. */
  readonly labelOf: (name: string) => string;
  /** What can be put in, under headings. */
  readonly offers: readonly { readonly heading: string; readonly names: readonly string[] }[];
  readonly prompt: string;
  readonly isLine?: boolean;
  readonly placeholder?: string;
}

/** Something that is put in, as it stands between words. */
class Slot extends WidgetType {
  constructor(private readonly label: string) {
    super();
  }

  override eq(other: Slot): boolean {
    return other.label === this.label;
  }

  override toDOM(): HTMLElement {
    const chip = document.createElement('span');
    chip.className = 'slot';
    chip.textContent = this.label;
    return chip;
  }
}

/** What is named in braces is shown as what it is called, and is passed and deleted as one sign. */
function slots(labelOf: (name: string) => string) {
  const named = new MatchDecorator({
    regexp: /\{([a-z]\w*(?:\.[a-z]+)?)(?:\|[^{}]*)?\}/g,
    decoration: ([, name = '']) => Decoration.replace({ widget: new Slot(labelOf(name)) }),
  });
  return ViewPlugin.fromClass(
    class {
      all: DecorationSet;
      constructor(view: EditorView) {
        this.all = named.createDeco(view);
      }
      update(update: ViewUpdate): void {
        this.all = named.updateDeco(update, this.all);
      }
    },
    {
      decorations: ({ all }) => all,
      provide: (plugin) => EditorView.atomicRanges.of((view) => view.plugin(plugin)?.all ?? Decoration.none),
    },
  );
}

/** A text of an email, with what is put in picked and shown by what it is called. */
export default function SlotText({ name, text, set, labelOf, offers, prompt, isLine, placeholder }: SlotTextProps) {
  const place = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const latest = useRef({ set, labelOf });
  latest.current = { set, labelOf };
  const labels = offers.flatMap(({ names }) => names.map((each) => `${each} ${labelOf(each)}`)).join('|');

  // biome-ignore lint/correctness/useExhaustiveDependencies: made anew where things are called otherwise, and keeps its own text
  useEffect(() => {
    if (!place.current) return;
    const made = new EditorView({
      parent: place.current,
      state: EditorState.create({
        doc: text,
        extensions: [
          history(),
          keymap.of([...defaultKeymap, ...historyKeymap]),
          EditorView.lineWrapping,
          EditorView.contentAttributes.of({
            ...{ 'aria-label': name, role: 'textbox', 'aria-multiline': String(!isLine), spellcheck: 'true' },
          }),
          slots((each) => latest.current.labelOf(each)),
          // A line stays one, whatever is pasted.
          ...(isLine ? [EditorState.transactionFilter.of((tr) => (tr.newDoc.lines > 1 ? [] : tr))] : []),
          EditorView.updateListener.of((update) => {
            if (update.docChanged) latest.current.set(update.state.doc.toString());
          }),
        ],
      }),
    });
    view.current = made;
    return () => {
      view.current = null;
      made.destroy();
    };
  }, [labels, name, isLine]);

  // What was changed elsewhere, by undoing or by somebody else, is shown here.
  useEffect(() => {
    const { current } = view;
    const now = current?.state.doc.toString();
    if (current && now !== text) current.dispatch({ changes: { from: 0, to: now?.length ?? 0, insert: text } });
  }, [text]);

  const putIn = (each: string): void => {
    const { current } = view;
    if (!current) return;
    const { from, to } = current.state.selection.main;
    const insert = `{${each}}`;
    current.dispatch({ changes: { from, to, insert }, selection: { anchor: from + insert.length } });
    current.focus();
  };
  return (
    <div className="min-w-0 flex-1">
      <div className="relative">
        <div ref={place} className={`input slot-text ${isLine ? '' : 'min-h-24'}`} />
        {text === '' && placeholder ? (
          <span aria-hidden className="pointer-events-none absolute top-1.5 left-2.5 text-soft">
            {placeholder}
          </span>
        ) : null}
      </div>
      <select
        className="mt-1 w-24 text-[13px] text-green"
        aria-label={`${name}: ${prompt}`}
        value=""
        onChange={(event) => putIn(event.target.value)}
      >
        <option value="">{prompt}</option>
        {offers.map(({ heading, names }) =>
          names.length === 0 ? null : (
            <optgroup key={heading} label={heading}>
              {names.map((each) => (
                <option key={each} value={each}>
                  {labelOf(each)}
                </option>
              ))}
            </optgroup>
          ),
        )}
      </select>
    </div>
  );
}
