'use client';

import { usePathname, useSearchParams } from 'next/navigation';
import { useEffect, useLayoutEffect, useRef } from 'react';

const KEY = 'kettle scroll ';
/** Frames in which a page gone back to grows to its length. */
const MOST_TRIES = 90;

/** A page opens at its top; gone back to, it opens where it was left. A filter changes a page where it stands. */
export function ScrollKeeper({ of }: { of: string }) {
  const path = usePathname();
  const address = `${path}?${useSearchParams()}`;
  const gone = useRef(false);
  const last = useRef(path);
  useEffect(() => {
    const onPop = () => (gone.current = true);
    window.addEventListener('popstate', onPop);
    return () => window.removeEventListener('popstate', onPop);
  }, []);
  useLayoutEffect(() => {
    const sheet = document.getElementById(of);
    if (sheet === null) return;
    let tries = gone.current ? MOST_TRIES : 0;
    const wanted = Number(sessionStorage.getItem(KEY + address) ?? 0);
    if (last.current !== path) sheet.scrollTop = 0;
    // A page that is gone back to may not be as long as it will be.
    const restore = () => {
      tries = sheet.scrollTop === wanted ? 0 : tries - 1;
      if (tries <= 0) return;
      sheet.scrollTop = wanted;
      requestAnimationFrame(restore);
    };
    restore();
    gone.current = false;
    last.current = path;
    const onScroll = () => {
      if (tries <= 0) sessionStorage.setItem(KEY + address, String(sheet.scrollTop));
    };
    sheet.addEventListener('scroll', onScroll, { passive: true });
    return () => {
      tries = 0;
      sheet.removeEventListener('scroll', onScroll);
    };
  }, [of, path, address]);
  return null;
}
