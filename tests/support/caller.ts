import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { DEMO_PASSWORD } from '@/demo/password';
import { ACTIONS } from '@/actions/all';
import type { PersonKey } from '@/demo/catalogue';

type Manifest = { readonly node: Record<string, { readonly exportedName: string }> };

/** The built application's names for what pages can ask it to do. */
const actionIds = (): Map<string, string> => {
  const { node } = JSON.parse(
    readFileSync(join('.next', 'server', 'server-reference-manifest.json'), 'utf8'),
  ) as Manifest;
  return new Map(Object.entries(node).map(([id, { exportedName }]) => [exportedName, id]));
};

export type Answer = { readonly status: number; readonly text: string; readonly headers: Headers };

/** Somebody who speaks to the application without a browser: signed in, or not. */
export class Caller {
  private readonly ids = actionIds();
  private constructor(
    private readonly base: string,
    readonly cookie: string,
  ) {}

  static signedOut = (base: string): Caller => new Caller(base, '');

  static async as(base: string, who: PersonKey): Promise<Caller> {
    const { headers } = await Caller.signedOut(base).call('signInHere', [`${who}@wrackline.example`, DEMO_PASSWORD]);
    const cookie = headers.getSetCookie().map((c) => c.split(';')[0]);
    if (cookie.length === 0) throw new Error(`${who} could not sign in.`);
    return new Caller(base, cookie.join('; '));
  }

  /** Every name that a page can call, and those that it can ask for and must not have. */
  get calls(): string[] {
    return [...new Set([...this.ids.keys(), ...ACTIONS.keys()])];
  }

  async ask(path: string, init: RequestInit = {}): Promise<Answer> {
    const headers = { cookie: this.cookie, ...(init.headers as Record<string, string>) };
    const answer = await fetch(this.base + path, { redirect: 'manual', ...init, headers });
    return { status: answer.status, text: await answer.text(), headers: answer.headers };
  }

  call(name: string, args: readonly unknown[], path = '/sign-in'): Promise<Answer> {
    const headers = {
      'next-action': this.ids.get(name) ?? '',
      origin: this.base,
      'content-type': 'text/plain;charset=UTF-8',
    };
    return this.ask(path, { method: 'POST', headers, body: JSON.stringify(args) });
  }

  /** Acts, and answers what came of it: done, refused, clash, signedOut, failed; or the status when nothing is told. */
  async act(name: string, input: unknown): Promise<string> {
    const own = this.ids.has(name);
    const { status, text } = await this.call(own ? name : 'perform', [own ? input : { action: name, input }], '/');
    const told = /"status":"(done|refused|clash)"/.exec(text)?.[1] ?? /"kind":"(signedOut|failed)"/.exec(text)?.[1];
    return told ?? String(status);
  }
}
