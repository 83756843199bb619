import type { ListName } from '@/queries/lists/lists';
import { PlaceTitle } from '@/ui/kit/Sheet';
import { TakeOut } from '@/ui/kit/TakeOut';
import Link from '@/ui/kit/Link';

/** The title of a page of settings: the way back to all of them, its history, and how it is taken out. */
export const SettingsTitle = ({ title, list }: { title: string; list: ListName }) => (
  <>
    <div className="mb-1 text-[13px] text-ink-2 max-phone:mb-3">
      <Link href="/settings" className="step">
        Settings
      </Link>
    </div>
    <PlaceTitle title={title}>
      <Link href="/history?about=company" className="step text-[13px]">
        History
      </Link>
      <TakeOut list={list} />
    </PlaceTitle>
  </>
);
