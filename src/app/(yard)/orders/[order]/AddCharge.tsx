'use client';

import { DropdownMenu } from 'radix-ui';
import { CHARGE_KINDS, CHARGE_NAMES, type ChargeKind } from '@/core/orders/charges';

/** Adds a charge of a kind to an order. */
export const AddCharge = ({ onAdd }: { onAdd: (kind: ChargeKind) => void }) => (
  <DropdownMenu.Root modal={false}>
    <DropdownMenu.Trigger className="step">+ Charge or discount</DropdownMenu.Trigger>
    <DropdownMenu.Portal>
      <DropdownMenu.Content
        align="start"
        side="top"
        sideOffset={6}
        className="z-50 min-w-[200px] rounded-xl border border-line bg-glaze p-1.5 shadow-xl"
      >
        {CHARGE_KINDS.map((kind) => (
          <DropdownMenu.Item
            key={kind}
            className="cursor-pointer rounded-md px-3 py-1.5 outline-none data-[highlighted]:bg-glaze-2 max-phone:py-[11px]"
            onSelect={() => onAdd(kind)}
          >
            {kind === 'other' ? 'Another charge' : CHARGE_NAMES[kind]}
          </DropdownMenu.Item>
        ))}
      </DropdownMenu.Content>
    </DropdownMenu.Portal>
  </DropdownMenu.Root>
);
