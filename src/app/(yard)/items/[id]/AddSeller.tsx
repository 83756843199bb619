'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { PickField } from '@/ui/kit/PickField';
import { ShelfPlain } from '@/ui/kit/Shelf';
import { Slip } from '@/ui/kit/Slip';
import { later } from '@/ui/acting/later';

const InPassing = later(() => import('../../_shared/items/InPassing'));

/** One more supplier of an item: who, and then how it sells it. */
export function AddSeller({ itemId }: { readonly itemId: number }) {
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const [making, setMaking] = useState<string>();
  const go = (supplierId: number) => router.push(`/items/${itemId}/sold/${supplierId}`);
  return (
    <>
      <ShelfPlain onClick={() => setOpen(true)}>Add a supplier</ShelfPlain>
      <Slip open={open} onClose={() => setOpen(false)} title="Add another supplier">
        <PickField
          kind="supplier"
          label="Supplier"
          value={null}
          onPick={(supplier) => supplier !== null && go(supplier.id)}
          make={{ words: 'New supplier', onMake: setMaking }}
        />
      </Slip>
      {making !== undefined && (
        <InPassing
          making={{ kind: 'supplier', typed: making }}
          onClose={() => setMaking(undefined)}
          onSupplier={({ id }) => go(id)}
        />
      )}
    </>
  );
}
