/** The package brings no types: of it, what is used here. */
declare module 'dmn-moddle' {
  export interface Element {
    readonly $type: string;
  }
  export class DmnModdle {
    create(type: string, properties: object): Element;
    fromXML(xml: string): Promise<{ readonly rootElement: Element }>;
    toXML(element: Element, options: { readonly format: boolean }): Promise<{ readonly xml: string }>;
  }
}
