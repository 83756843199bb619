import { loadSettings } from '@/queries/company/settings';
import Link from '@/ui/kit/Link';
import { PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { yardPage } from '../../server/yardPage';

export const metadata = { title: 'Settings' };

export default yardPage(async ({ db, person }) => {
  const pages = await loadSettings(db, person);
  return (
    <Sheet>
      <PlaceTitle title="Settings" />
      <ul className="max-w-[640px]" aria-label="Settings">
        {pages.map((p) => (
          <li key={p.href} className="flex items-baseline gap-4 border-b border-line-2 py-2 max-phone:flex-wrap">
            <Link href={p.href} className="w-[220px] font-semibold hover:underline">
              {p.name}
            </Link>
            <span className="text-ink-2">{p.now}</span>
          </li>
        ))}
      </ul>
      <p className="mt-4 text-ink-2">
        Every change is in the{' '}
        <Link href="/history?about=company" className="step">
          history
        </Link>
        , with the old value.
      </p>
    </Sheet>
  );
});
