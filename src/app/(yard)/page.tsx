import { grouped } from '@/core/words';
import Link from '@/ui/kit/Link';
import { formatDay } from '@/core/calendar/workdays';
import { loadDesk } from '@/queries/frame/desk';
import type { Waiting } from '@/queries/frame/waiting';
import { may } from '@/core/people/rights';
import { Fact, Shelf } from '@/ui/kit/Shelf';
import { Empty, PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { yardPage } from '../server/yardPage';

export const metadata = { title: 'Desk' };

const WORD = { over: 'text-brick', care: 'text-amber', good: 'text-enamel' } as const;

function Row({ row }: { row: Waiting }) {
  return (
    <li className="border-b border-line-2">
      <Link
        href={row.href}
        className="flex min-h-[34px] items-baseline gap-x-3 py-1.5 hover:bg-glaze-2 max-phone:min-h-[44px] max-phone:flex-wrap max-phone:justify-between"
      >
        <span className={`w-[78px] shrink-0 font-bold max-phone:w-auto ${WORD[row.weight]}`}>{row.word}</span>
        <span className="min-w-0 flex-1 max-phone:order-last max-phone:basis-full">{row.text}</span>
        <span className="step">{row.step}</span>
      </Link>
    </li>
  );
}

export default yardPage(async ({ db, person, today }) => {
  const groups = await loadDesk(db, person, today);
  return (
    <Sheet>
      <PlaceTitle title={`Hello, ${person.name.split(' ')[0]}`} count={formatDay(today, today)} />
      {groups.length === 0 && (
        <Empty title="Nothing to do just now">
          Lines to buy, orders to send, deliveries to receive and invoices to match appear here.
        </Empty>
      )}
      <div className="gap-x-10 lg:columns-2">
        {groups.map((g) => (
          <section key={g.title} aria-label={g.title} className="mb-6 break-inside-avoid">
            <h2 className="border-b border-ink pb-1 text-[16px]">
              {g.title} <span className="font-text text-[14px] font-normal text-ink-2">{grouped(g.count)}</span>
            </h2>
            <ul>
              {g.rows.map((r) => (
                <Row key={r.href + r.text} row={r} />
              ))}
              {g.href !== undefined && g.count > g.rows.length && (
                <li className="py-1.5">
                  <Link href={g.href} className="step">
                    and {grouped(g.count - g.rows.length)} more
                  </Link>
                </li>
              )}
            </ul>
          </section>
        ))}
      </div>
      <Shelf
        facts={
          <Fact>
            {groups.length === 0
              ? 'Nothing to do'
              : groups.map((g) => `${grouped(g.count)} ${g.title.toLowerCase()}`).join(' · ')}
          </Fact>
        }
      >
        {may(person, 'draft orders') && (
          <Link href="/gather" className="btn btn-main h-[38px]">
            Gather
          </Link>
        )}
        {!may(person, 'draft orders') && may(person, 'receive') && (
          <Link href="/dock" className="btn btn-main h-[38px]">
            Go to Dock
          </Link>
        )}
        {!may(person, 'draft orders') && may(person, 'match invoices') && (
          <Link href="/invoices" className="btn btn-main h-[38px]">
            Match invoices
          </Link>
        )}
      </Shelf>
    </Sheet>
  );
});
