'use client';

import type { ComponentProps } from 'react';
import { readAs } from '@/core/money/sum';
import { TextField } from './Field';

/** A number to type in, or a sum, with what it was read as beside it where that could be doubted. */
export function NumberField({ inputClass = '', ...field }: ComponentProps<typeof TextField>) {
  const hint = readAs(typeof field.value === 'string' ? field.value : '') ?? field.hint;
  return <TextField inputMode="decimal" inputClass={`text-right ${inputClass}`} {...field} hint={hint} />;
}
