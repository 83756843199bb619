'use client';

import type { ComponentProps } from 'react';
import { isUndecided } from '@/core/money/decimal';
import { TextField } from './Field';

/** What a number is read as, where it could be read in two ways: “1,250” is one thousand two hundred and fifty. */
const readAs = (text: string): string | undefined =>
  isUndecided(text) && text.includes(',')
    ? `read as ${text.trim().replace(/,/g, '\u202f')}, with no decimals`
    : undefined;

/** A number to type in, with how it was read beside it where that could be doubted. */
export function NumberField({ inputClass = '', ...field }: ComponentProps<typeof TextField>) {
  const hint = readAs(typeof field.value === 'string' ? field.value : '') ?? field.hint;
  return <TextField inputMode="decimal" inputClass={`text-right ${inputClass}`} {...field} hint={hint} />;
}
