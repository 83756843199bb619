import { z } from 'zod';
import { FIND_KINDS, noteUse as note, type FindKind } from '@/store/find';
import { defineAction } from './action';

/** Notes what a person picked or opened, so that it stands first the next time. */
export const noteUse = defineAction({
  name: 'noteUse',
  right: 'see jobs',
  personal: true,
  input: z.object({ kind: z.enum(FIND_KINDS as [FindKind, ...FindKind[]]), id: z.number().int().positive() }),
  run: async ({ trx, actor, now }, { kind, id }) => note(trx, actor.id, kind, id, now),
});
