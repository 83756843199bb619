'use client';

import { DropdownMenu } from 'radix-ui';
import Link from '@/ui/kit/Link';
import { ROLE_NAMES, type Role } from '@/core/people/rights';
import { footFor, menuFor, type MenuEntry } from './menu';
import { useYard } from './YardContext';

export type MenuProps = {
  readonly person: { readonly name: string; readonly roles: readonly Role[]; readonly theme: string };
  readonly onTheme: () => void;
  readonly onSignOut: () => void;
  readonly onKeys: () => void;
};

/** The places that are not in the band, and what is the person's own. */
export default function PersonMenu({ person, onTheme, onSignOut, onKeys }: MenuProps) {
  const { may } = useYard();
  const initials = person.name
    .split(' ')
    .map((w) => w[0])
    .join('')
    .slice(0, 2);
  const inFoot = footFor(person.roles, may);
  const entry =
    'block w-full cursor-pointer rounded-md px-3 py-1.5 text-left outline-none data-[highlighted]:bg-glaze-2 max-phone:py-[11px]';
  const link = ({ href, name, at }: MenuEntry) => (
    <DropdownMenu.Item asChild key={href}>
      <Link href={href} className={`${entry} ${at === 'band' ? 'phone:hidden' : ''}`}>
        {name}
      </Link>
    </DropdownMenu.Item>
  );
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger
        aria-label={`${initials}: ${person.name}, menu`}
        className="tap grid size-[31px] shrink-0 place-items-center rounded-full bg-[#e9d8b4] text-[11.5px] font-bold text-[#17262b]"
      >
        {initials}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={6}
          className="z-50 min-w-[220px] rounded-xl border border-line bg-glaze p-1.5 shadow-xl"
        >
          <div className="px-3 pt-1 pb-2">
            <div className="font-semibold">{person.name}</div>
            <div className="text-[12.5px] text-ink-2">{person.roles.map((r) => ROLE_NAMES[r]).join(', ')}</div>
          </div>
          <DropdownMenu.Separator className="my-1 h-px bg-line-2" />
          {menuFor(may)
            .filter((p) => p.at === 'menu' || (p.at === 'band' && !inFoot.includes(p)))
            .map(link)}
          <DropdownMenu.Item className={entry} onSelect={onTheme}>
            {person.theme === 'evening' ? 'Light theme' : 'Dark theme'}
          </DropdownMenu.Item>
          <DropdownMenu.Item className={entry} onSelect={onKeys}>
            Keyboard shortcuts
          </DropdownMenu.Item>
          <DropdownMenu.Separator className="my-1 h-px bg-line-2" />
          <DropdownMenu.Item className={entry} onSelect={onSignOut}>
            Sign out
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
