import { type Desk, ok } from './desk.ts';

export const USER = 'urn:ietf:params:scim:schemas:core:2.0:User';
export const ENTERPRISE = 'urn:ietf:params:scim:schemas:extension:enterprise:2.0:User';
export const GROUP = 'urn:ietf:params:scim:schemas:core:2.0:Group';
export const PATCH_OP = 'urn:ietf:params:scim:api:messages:2.0:PatchOp';

interface Answer {
  readonly status: number;
  readonly headers: Headers;
  // biome-ignore lint/suspicious/noExplicitAny: tests read answers of many shapes
  readonly body: any;
}

type Sent = Readonly<Record<string, string>>;

/** A directory that speaks to a desk, with a token of its own. */
export class Directory {
  private constructor(
    readonly address: string,
    readonly token: string,
  ) {}

  static async of(desk: Desk): Promise<Directory> {
    const ada = await desk.as('Ada Quillfeather');
    const { token } = ok(await ada.call('addDirectoryToken', { body: { name: 'Staff directory', days: null } }));
    return new Directory(`${desk.running.url}/scim/v2`, token);
  }

  async call(method: string, path: string, body?: unknown, headers: Sent = {}): Promise<Answer> {
    const answer = await fetch(`${this.address}${path}`, {
      method,
      headers: { Authorization: `Bearer ${this.token}`, 'Content-Type': 'application/scim+json', ...headers },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    const text = await answer.text();
    return { status: answer.status, headers: answer.headers, body: text === '' ? null : JSON.parse(text) };
  }

  get = (path: string, headers?: Sent) => this.call('GET', path, undefined, headers);
  post = (path: string, body: unknown) => this.call('POST', path, body);
  put = (path: string, body: unknown, headers?: Sent) => this.call('PUT', path, body, headers);
  delete = (path: string, headers?: Sent) => this.call('DELETE', path, undefined, headers);
  patch = (path: string, operations: readonly unknown[], headers?: Sent) =>
    this.call('PATCH', path, { schemas: [PATCH_OP], Operations: operations }, headers);
  bulk = (operations: readonly unknown[], failOnErrors = 0) =>
    this.call('POST', '/Bulk', {
      schemas: ['urn:ietf:params:scim:api:messages:2.0:BulkRequest'],
      ...{ failOnErrors, Operations: operations },
    });
}
