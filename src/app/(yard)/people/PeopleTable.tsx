'use client';

import { ROLE_NAMES } from '@/core/people/rights';
import type { PersonRow } from '@/queries/people/people';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import Link from '@/ui/kit/Link';

const COLUMNS: Column<PersonRow>[] = [
  {
    key: 'name',
    head: 'Name',
    className: '!font-semibold',
    by: (p) => p.name,
    cell: (p) => (
      <span className="flex flex-wrap items-center gap-x-2">
        <Link href={`/people/${p.id}`} className="hover:underline">
          {p.name}
        </Link>
        {p.active === 0 && <span className="tag">no access</span>}
      </span>
    ),
  },
  { key: 'email', head: 'Email', wide: true, by: (p) => p.email, cell: (p) => p.email },
  { key: 'roles', head: 'Roles', cell: (p) => p.roles.map((r) => ROLE_NAMES[r]).join(', ') },
];

export const PeopleTable = ({ people }: { people: readonly PersonRow[] }) => (
  <LedgerTable label="People" rows={people} columns={COLUMNS} keyOf={(p) => p.id} hrefOf={(p) => `/people/${p.id}`} />
);
