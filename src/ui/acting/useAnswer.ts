import { useEffect, useState } from 'react';
import { ask, asJson } from './ask';

/**
 * What the server answers to a question, asked again when it changes; with a body it is posted.
 * @returns undefined while it is not there yet
 */
export function useAnswer<T>(url: string, body?: string, again = 0): T | undefined {
  const [told, setTold] = useState<T>();
  useEffect(() => {
    const stop = new AbortController();
    const init = body === undefined ? { signal: stop.signal } : asJson(body, stop.signal);
    void ask<T>(url, init).then((answer) => answer !== undefined && setTold(answer));
    return () => stop.abort();
  }, [url, body, again]);
  return told;
}
