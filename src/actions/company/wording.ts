import { JOB_KINDS } from '@/core/jobs/states';
import { z } from 'zod';
import { MAIL_WORDS } from '@/core/orders/mail';
import { anyText, text } from '@/core/records/fields';
import { insertMany } from '@/store/rows';
import { defineAction, found, refuse, type Subject } from '../action';

const KINDS = Object.keys(MAIL_WORDS) as [keyof typeof MAIL_WORDS, ...(keyof typeof MAIL_WORDS)[]];

/** Says the words of a mail, for all suppliers or for one; with both left empty, those that come before it hold again. */
export const saveMailWords = defineAction({
  name: 'saveMailWords',
  right: 'keep suppliers',
  input: z.object({
    supplierId: z.number().int().nullable(),
    kind: z.enum(KINDS),
    subject: anyText(200),
    body: anyText(4000),
  }),
  run: async ({ trx, audit }, { supplierId, kind, subject, body }) => {
    const supplier =
      supplierId === null
        ? undefined
        : found(await trx('supplier').where({ id: supplierId }).first('name'), 'This supplier');
    const own = () => {
      const query = trx('mailWords').where({ kind });
      return supplierId === null ? query.whereNull('supplierId') : query.where({ supplierId });
    };
    const before = await own().first('subject', 'body');
    if ((subject === '') !== (body === ''))
      refuse('mail.half', 'Enter both a subject and a text, or leave both empty.', subject === '' ? 'subject' : 'body');
    await own().delete();
    if (subject !== '') await trx('mailWords').insert({ supplierId, kind, subject, body });
    const subjects: Subject[] = [supplierId === null ? ['company', 1] : ['supplier', supplierId]];
    await audit({
      words: `Changed email wording${supplier === undefined ? '' : ` for ${supplier.name}`}`,
      subjects,
      before: before ?? {},
      after: { subject, body },
    });
  },
});

/** Says which words stand on orders: on all of them, on those to a supplier, or on those for a kind of job. */
export const saveTextBlocks = defineAction({
  name: 'saveTextBlocks',
  right: 'keep suppliers',
  input: z.object({
    blocks: z
      .array(
        z.object({
          words: text(1000, 'Enter the text for the order.'),
          supplierId: z.number().int().nullable(),
          jobKind: z.enum(JOB_KINDS).nullable(),
        }),
      )
      .max(50, 'No more than 50 texts.'),
  }),
  run: async ({ trx, audit }, { blocks }) => {
    const before = await trx('textBlock').orderBy('place').select('words', 'supplierId', 'jobKind');
    await trx('textBlock').delete();
    await insertMany(
      trx,
      'textBlock',
      blocks.map((b, k) => ({ ...b, place: k + 1 })),
    );
    await audit({
      words: 'Changed order wording',
      subjects: [['company', 1]],
      before: { blocks: before },
      after: { blocks },
    });
  },
});
