'use client';

import Link from '@/ui/kit/Link';
import { usePathname } from 'next/navigation';
import { useYard } from './YardContext';
import { later } from '../acting/later';
import { FindButton } from './Find';
import { footFor, menuFor, type Counts, type MenuEntry } from './menu';
import type { MenuProps } from './PersonMenu';

const PersonMenu = later(() => import('./PersonMenu'), MenuToCome);

export function Wordmark() {
  return (
    <span className="flex items-center gap-2 font-title text-[19px] font-bold tracking-tight text-on-rim">
      <svg
        viewBox="0 0 28 26"
        width="25"
        height="24"
        fill="none"
        stroke="currentColor"
        strokeWidth="1.9"
        strokeLinecap="round"
        strokeLinejoin="round"
        aria-hidden
      >
        <path d="M5 11h15l2 10.5a1.6 1.6 0 0 1-1.6 1.9H4.6A1.6 1.6 0 0 1 3 21.500Z" />
        <path d="M20.400 13.200 25 9.400" />
        <path d="M7 11c0-7.600 11-7.600 11 0" />
        <path d="M4.300 17.600h16.800" stroke="#e59a6b" />
      </svg>
      kettle tab
    </span>
  );
}

export function Band({ counts, ...menu }: MenuProps & { readonly counts: Counts }) {
  const path = usePathname();
  const { may } = useYard();
  const isHere = (href: string) => (href === '/' ? path === '/' : path.startsWith(href));
  const places = menuFor(may).filter((p) => p.at === 'band');
  const waitingAt = ({ count }: MenuEntry) => (count === undefined ? 0 : counts[count]);
  return (
    <header className="bg-rim text-on-rim">
      <div className="flex h-[50px] items-center gap-5 px-[18px]">
        <Link href="/" aria-label="Kettle Tab, Desk" className="shrink-0">
          <Wordmark />
        </Link>
        <nav aria-label="Places" className="flex min-w-0 flex-1 gap-1 max-lg:hidden">
          {places.map((p) => (
            <PlaceLink key={p.href} place={p} here={isHere(p.href)} n={waitingAt(p)} />
          ))}
        </nav>
        <div className="flex-1 lg:hidden" />
        <FindButton />
        <PersonMenu {...menu} />
      </div>
      <nav aria-label="Places" className="hidden gap-1 overflow-x-auto px-3 pb-1 phone:flex lg:hidden">
        {places.map((p) => (
          <PlaceLink key={p.href} place={p} here={isHere(p.href)} n={waitingAt(p)} />
        ))}
      </nav>
      <nav
        aria-label="Places"
        className="fixed inset-x-0 bottom-0 z-30 flex h-[52px] border-t border-rim-2 bg-rim phone:hidden"
      >
        {footFor(menu.person.roles, may).map((p) => (
          <Link
            key={p.href}
            href={p.href}
            aria-current={isHere(p.href) ? 'page' : undefined}
            className={`flex min-w-0 flex-1 items-center justify-center gap-1 text-[13px] font-semibold ${isHere(p.href) ? 'bg-rim-2' : ''}`}
          >
            {p.name}
            <Badge n={waitingAt(p)} place={p} />
          </Link>
        ))}
        <FindButton foot />
      </nav>
    </header>
  );
}

const Badge = ({ n, place }: { n: number; place: MenuEntry }) =>
  n === 0 ? null : (
    <span className="rounded-full bg-copper px-[7px] text-[12px] leading-[18px] font-bold text-on-copper">
      {n > 999 ? '999+' : n}
      <span className="sr-only"> {place.waiting?.(n)}</span>
    </span>
  );

function PlaceLink({ place, here, n }: { place: MenuEntry; here: boolean; n: number }) {
  return (
    <Link
      href={place.href}
      aria-current={here ? 'page' : undefined}
      className={`flex h-[30px] items-center gap-1.5 rounded-lg px-[10px] whitespace-nowrap ${here ? 'bg-rim-2 font-semibold' : 'hover:bg-rim-2'}`}
    >
      {place.name}
      <Badge n={n} place={place} />
    </Link>
  );
}

/** Keeps the room of the person's menu until it is there. */
function MenuToCome() {
  return <span className="size-[31px] shrink-0 rounded-full bg-[#e9d8b4]" />;
}
