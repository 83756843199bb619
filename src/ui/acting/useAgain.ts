import { useEffect, useRef } from 'react';

/** How long after what was not answered it is tried again, in milliseconds. */
const AGAIN_AFTER = 4000;

/** Goes on with what waits for the network, as soon as that is back; `work` looks itself whether anything waits. */
export function useAgain(work: () => void): void {
  const latest = useRef(work);
  useEffect(() => {
    latest.current = work;
  });
  useEffect(() => {
    const again = () => latest.current();
    window.addEventListener('online', again);
    const tick = setInterval(again, AGAIN_AFTER);
    return () => {
      window.removeEventListener('online', again);
      clearInterval(tick);
    };
  }, []);
}
