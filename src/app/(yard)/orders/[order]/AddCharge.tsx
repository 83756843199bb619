'use client';

import { DropdownMenu } from 'radix-ui';
import { CHARGE_KINDS, CHARGE_NAMES, type ChargeKind } from '@/core/orders/charges';

/** Adds a charge of a kind to an order. */
export const AddCharge = ({ onAdd }: { onAdd: (kind: ChargeKind) => void }) => (
  <DropdownMenu.Root>
    <DropdownMenu.Trigger className="step">+ charge or discount</DropdownMenu.Trigger>
    <DropdownMenu.Portal>
      <DropdownMenu.Content align="start" sideOffset={4} className="menu">
        {CHARGE_KINDS.map((kind) => (
          <DropdownMenu.Item key={kind} className="menu-item" onSelect={() => onAdd(kind)}>
            {kind === 'other' ? 'Another charge' : CHARGE_NAMES[kind]}
          </DropdownMenu.Item>
        ))}
      </DropdownMenu.Content>
    </DropdownMenu.Portal>
  </DropdownMenu.Root>
);
