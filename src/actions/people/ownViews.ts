import { z } from 'zod';
import { FIND_KINDS, noteUse as note, type FindKind } from '@/store/find';
import * as views from '@/store/listViews';
import { defineAction, refuse } from '../action';
import { text } from '@/core/records/fields';

/** Notes what a person picked or opened, so that it stands first the next time. */
export const noteUse = defineAction({
  name: 'noteUse',
  internal: true,
  right: 'see jobs',
  personal: true,
  input: z.object({ kind: z.enum(FIND_KINDS as [FindKind, ...FindKind[]]), id: z.number().int().positive() }),
  run: async ({ trx, actor, now }, { kind, id }) => note(trx, actor.id, kind, id, now),
});

const list = z.string().regex(/^[a-z-]{1,30}$/);
const keys = z.array(z.string().max(30)).max(40);

/** Keeps which columns of a list a person sees, and in which order. */
export const keepColumns = defineAction({
  name: 'keepColumns',
  internal: true,
  right: 'see jobs',
  personal: true,
  input: z.object({ list, order: keys, hidden: keys }),
  run: async ({ trx, actor }, { list: of, ...columns }) => views.keepColumns(trx, actor.id, of, columns),
});

/** Keeps how a list is filtered and sorted now under a name. */
export const keepView = defineAction({
  name: 'keepView',
  right: 'see jobs',
  personal: true,
  input: z.object({ list, name: text(40, 'Give the view a name.'), query: z.string().max(600) }),
  run: async ({ trx, actor }, view) => {
    if (!(await views.keepView(trx, actor.id, view)))
      refuse('view.many', 'This list already has 30 saved views. Remove one first.', 'name');
  },
});

/** Takes a kept view off. */
export const dropView = defineAction({
  name: 'dropView',
  right: 'see jobs',
  personal: true,
  input: z.object({ id: z.number().int() }),
  run: async ({ trx, actor }, { id }) => void (await views.dropView(trx, actor.id, id)),
});
