import type { ReactNode } from 'react';
import { Toaster } from 'sonner';
import { may, RIGHTS, type Right } from '@/core/people/rights';
import { loadFrame } from '@/queries/frame/frame';
import { loadCalendar } from '@/store/company';
import { ScrollKeeper } from '@/ui/frame/ScrollKeeper';
import { KeysProvider } from '@/ui/frame/keys';
import { YardProvider } from '@/ui/frame/YardContext';
import { here } from '../server/session';
import { clock } from '@/server/setting';
import { readers } from '@/server/readers';
import { FrameTop } from './_shared/frame/FrameTop';

export default async function YardLayout({ children }: { children: ReactNode }) {
  const person = await here();
  const db = await readers();
  const today = clock.today();
  const frame = await loadFrame(db, person, today);
  const calendar = await loadCalendar(db);
  const rights = (Object.keys(RIGHTS) as Right[]).filter((r) => may(person, r));
  return (
    <YardProvider
      yard={{
        today,
        currency: frame.currency,
        rights,
        week: [...calendar.week],
        off: [...calendar.off],
        locale: frame.locale,
        unitsUnused: frame.unitsUnused,
        lists: frame.lists,
      }}
    >
      <KeysProvider>
        <a href="#sheet-scroll" className="skip-link">
          Skip to content
        </a>
        <ScrollKeeper of="sheet-scroll" />
        <div className="flex h-dvh flex-col">
          <FrameTop
            frame={frame}
            person={{
              name: person.name,
              email: person.email,
              theme: person.theme,
              roles: person.roles,
            }}
          />
          <main
            id="sheet-scroll"
            tabIndex={-1}
            className="relative mb-[58px] min-h-0 flex-1 overflow-y-auto px-4 pb-3 outline-none max-phone:mb-[110px] max-phone:px-2 max-phone:pb-[70px]"
          >
            {children}
          </main>
        </div>
        <Toaster
          position="bottom-left"
          offset={{ bottom: 70, left: 16 }}
          mobileOffset={{ bottom: 158, left: 12, right: 12 }}
          toastOptions={{
            style: {
              background: 'var(--glaze)',
              color: 'var(--ink)',
              border: '1px solid var(--line)',
              fontFamily: 'var(--font-text)',
            },
          }}
        />
      </KeysProvider>
    </YardProvider>
  );
}
