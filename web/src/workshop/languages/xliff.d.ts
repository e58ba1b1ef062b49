declare module 'xliff' {
  /** A text: plain, or in pieces where a tool marked something in it. */
  type Text = string | readonly unknown[] | undefined;

  interface Unit {
    readonly source: Text;
    readonly target?: Text;
    readonly note?: string;
  }

  interface Translated {
    readonly resources: Readonly<Record<string, Readonly<Record<string, Unit>>>>;
    readonly sourceLanguage?: string;
    readonly targetLanguage?: string;
  }

  /** XLIFF 2 as text. */
  export function js2xliff(translated: Translated): Promise<string>;
  /** Rejects what is not well-formed. */
  export function xliff2js(xliff: string): Promise<Translated>;
}
