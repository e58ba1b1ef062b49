/** The part of the editor’s interface that is used here; the package brings no types. */
declare module '@bpmn-io/feel-editor' {
  import type { linter } from '@codemirror/lint';

  interface Named {
    readonly name: string;
    readonly detail?: string;
    readonly info?: string;
  }

  export default class FeelEditor {
    constructor(config: {
      container: HTMLElement;
      dialect: 'expression' | 'unaryTests';
      value: string;
      builtins: readonly (Named & { readonly type: string; readonly params: readonly { readonly name: string }[] })[];
      variables: readonly Named[];
      contentAttributes: Readonly<Record<string, string>>;
      extensions: readonly ReturnType<typeof linter>[];
      onChange: (text: string) => void;
    });
  }
}
