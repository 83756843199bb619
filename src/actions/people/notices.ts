import { rowsOf } from '@/store/rows';
import { z } from 'zod';
import { compose, domainOf } from '@/formats/mail/compose';
import { loadCompany } from '@/store/company';
import { defineAction } from '../action';
import type { Sender } from '../orders/sending';

/** A notice as it goes: to whom, and what it says. */
type Claimed = {
  readonly id: number;
  readonly email: string;
  readonly subject: string;
  readonly body: string;
  readonly path: string;
};

/** So many go after one act; those beyond it go after the next. */
const MOST = 50;

/** Takes the notices that wait, so that each goes once, however many ask at the same time. */
export const claimNotices = defineAction({
  name: 'claimNotices',
  internal: true,
  right: 'see jobs',
  personal: true,
  input: z.object({ most: z.number().int().min(1).max(200) }),
  run: async ({ trx }, { most }) => {
    const rows = await rowsOf<Claimed>(
      trx('notice as n')
        .join('person as p', 'p.id', 'n.personId')
        .where('n.state', 'waiting')
        .orderBy('n.id')
        .limit(most)
        .select('n.id', 'p.email', 'n.subject', 'n.body', 'n.path'),
    );
    await trx('notice')
      .whereIn(
        'id',
        rows.map((r) => r.id),
      )
      .update({ state: 'sending' });
    return rows;
  },
});

/** Records what became of a notice. */
export const recordNotice = defineAction({
  name: 'recordNotice',
  internal: true,
  right: 'see jobs',
  personal: true,
  input: z.object({ id: z.number().int(), taken: z.boolean(), answer: z.string() }),
  run: async ({ trx }, { id, taken, answer }) =>
    void (await trx('notice')
      .where({ id, state: 'sending' })
      .update({ state: taken ? 'taken' : 'failed', answer })),
});

/**
 * Mails what our own people are to be told. Each mail leads to a page, which opens only to who signs in.
 * @param site - where the application is reached, such as https://kettle.example
 */
export async function sendNotices(sender: Pick<Sender, 'db' | 'perform' | 'post'>, site: string): Promise<number> {
  const { db, perform, post } = sender;
  if ((await db('notice').where({ state: 'waiting' }).first('id')) === undefined) return 0;
  const taken = await perform(claimNotices, { most: MOST });
  if (taken.status !== 'done') return 0;
  const { name, email: from } = await loadCompany(db);
  for (const { id, email, subject, body, path } of taken.value) {
    const raw = await compose({
      id: `notice.${id}@${domainOf(from)}`,
      from: { name, address: from },
      to: [email],
      copyTo: [],
      subject,
      body: `${body}\n\n${site}${path}\n`,
      attachments: [],
    });
    const { came, answer } = await post({ raw, from, to: [email] });
    await perform(recordNotice, { id, taken: came === 'taken', answer });
  }
  return taken.value.length;
}
