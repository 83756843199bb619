/**
 * Asks the server for JSON.
 * @returns undefined when it does not answer, refuses, or is not asked any more
 */
export async function ask<T>(url: string, init: RequestInit): Promise<T | undefined> {
  try {
    const answer = await fetch(url, init);
    const told = answer.ok ? ((await answer.json()) as T) : undefined;
    return init.signal?.aborted ? undefined : told;
  } catch {
    return undefined;
  }
}

/** A question that goes with its body as JSON. */
export const asJson = (body: string, signal: AbortSignal): RequestInit => ({
  method: 'POST',
  body,
  headers: { 'content-type': 'application/json' },
  signal,
});

/** Tells the server something that needs no answer. */
export const tell = (url: string, what: unknown): Promise<unknown> =>
  // It is told even when the page is left meanwhile.
  ask(url, { ...asJson(JSON.stringify(what), new AbortController().signal), keepalive: true });
