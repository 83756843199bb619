'use client';

import { usePathname, useSearchParams } from 'next/navigation';
import { useEffect, useLayoutEffect, useRef } from 'react';

const KEY = 'kettle scroll ';

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
    if (gone.current) sheet.scrollTop = Number(sessionStorage.getItem(KEY + address) ?? 0);
    else if (last.current !== path) sheet.scrollTop = 0;
    gone.current = false;
    last.current = path;
    const onScroll = () => sessionStorage.setItem(KEY + address, String(sheet.scrollTop));
    sheet.addEventListener('scroll', onScroll, { passive: true });
    return () => sheet.removeEventListener('scroll', onScroll);
  }, [of, path, address]);
  return null;
}
