import { z } from 'zod';
import { formatMoney } from '@/core/money/money';
import { anyText, text } from '@/core/records/fields';
import { refusal } from '@/core/result';
import type { LadderStep, Needed } from '@/core/signoff/ladder';
import { maySign, signatories, stepNow, type AskedSignature, type Matter } from '@/core/signoff/signing';
import { whoSigns, whyNeeded, type Names } from '@/core/signoff/words';
import { isUnsent } from '@/core/orders/states';
import { together } from '@/core/words';
import { revisionEffects } from '@/workings/orders/effects';
import { setState, type StoredOrder } from '@/store/orders';
import { insertMany, insertOne } from '@/store/rows';
import { loadLadder, loadSignatories } from '@/store/signoff/ladder';
import { askedOf, loadNames, loadSigners, matterOf } from '@/workings/signoff/matter';
import { tell } from '@/store/notices';
import { openRound, reckon, sendingOf, type OpenRound, type Reckoning, type Sending } from '@/workings/signoff/reckon';
import type { SignOffRow } from '@/store/tables';
import { Clash, defineAction, found, grant, once, Refused, refuse, type Work } from '../action';
import { moved, orderOf, orderRef, orderSubjects } from '../orders/orders';
import { checkReviewed } from '../orders/reviews';
import { toSend } from '../orders/revising';

const reason = text(300, 'Give a reason.');

/** What an order would be sent as, reckoned by the rules and the ladder as they are now. */
async function reckonNow({ trx, today }: Pick<Work, 'trx' | 'today'>, order: StoredOrder): Promise<Reckoning> {
  const sending = await sendingOf(trx, order, today);
  if (sending === undefined) return refuse('order.faults', `${order.number} isn’t ready: see Checks.`);
  return reckon(trx, order, sending);
}

async function wordsFor(work: Pick<Work, 'trx'>, { facts }: Reckoning) {
  const names = await loadNames(
    work.trx,
    facts.jobs.map((j) => j.id),
  );
  const ladder = new Map((await loadLadder(work.trx)).map((s) => [s.id, s]));
  const why = (n: Needed) => whyNeeded(n, ladder.get(n.stepId) as LadderStep, names);
  return { names, why };
}

async function whoAndWhy(work: Pick<Work, 'trx'>, reckoning: Reckoning, needed: readonly Needed[]): Promise<string> {
  const { names, why } = await wordsFor(work, reckoning);
  return together(needed.map((n) => `${whoSigns(n.by, names)} (${why(n)})`));
}

/** What a rule forbids is not sent, and not asked for either. */
function unlessForbidden({ findings }: Reckoning): void {
  const forbidden = findings.filter((f) => f.answer === 'forbid');
  if (forbidden.length > 0)
    throw new Refused(
      forbidden.map((f) =>
        refusal(
          'rule.forbids',
          `${f.words}. Company rules block this. Change the order, or ask an administrator about the rule.`,
        ),
      ),
    );
}

/** Ends the action unless an order has every signature that it needs as it would go out now. */
export async function checkSigned(work: Pick<Work, 'trx' | 'today'>, order: StoredOrder): Promise<void> {
  const reckoning = await reckonNow(work, order);
  unlessForbidden(reckoning);
  const { missing } = reckoning.standing;
  if (missing.length === 0) return;
  const who = await whoAndWhy(work, reckoning, missing);
  refuse('signOff.needed', `${order.number} needs sign-off by ${who} before it can be sent. Request sign-off.`);
}

/**
 * Ends the action when charging a sent order elsewhere, at once, needs a signature: unless the person may give every one
 * that it needs, it is written as a revision, which can be signed.
 */
export async function checkCharged(work: Work, order: StoredOrder, lines: Sending['lines']): Promise<void> {
  const { trx, actor, today } = work;
  const reckoning = await reckon(trx, order, { lines, effects: await revisionEffects(trx, order, lines) });
  unlessForbidden(reckoning);
  const { facts, standing } = reckoning;
  const matter = await matterOf(trx, await loadSigners(trx, today), order, facts.value, []);
  const left = standing.missing.filter((n) => !maySign(actor.id, toGive(n), matter).ok);
  if (left.length === 0) return;
  const who = await whoAndWhy(work, reckoning, left);
  refuse('signOff.needed', `This needs sign-off by ${who}. Revise ${order.number} instead, and request sign-off.`);
}

const toGive = ({ by, place }: Needed): AskedSignature => ({
  by,
  place,
  state: 'waiting',
  handedTo: null,
  decidedBy: null,
  forId: null,
});

const nameOf = (order: StoredOrder) =>
  isUnsent(order.state, order.sentFrom) ? order.number : `revision ${order.revision + 1} of ${order.number}`;

/** The next version of an order: whoever looks at it sees that it moved on. */
async function moveOn({ trx }: Work, order: StoredOrder, event?: 'askSignOff' | 'signOff' | 'sendBack'): Promise<void> {
  const unsent = isUnsent(order.state, order.sentFrom);
  await setState(trx, order, unsent && event !== undefined ? { state: moved(order, event) } : {});
}

const matterNow = async ({ trx, today }: Work, order: StoredOrder, { round, asked }: OpenRound): Promise<Matter> =>
  matterOf(trx, await loadSigners(trx, today), order, round.value, asked.map(askedOf));

/** Tells everybody who may sign what is to be signed now. */
async function tellSigners(work: Work, order: StoredOrder, open: OpenRound, again = false): Promise<number> {
  const { trx, now, company } = work;
  const matter = await matterNow(work, order, open);
  const at = stepNow(matter.asked);
  const to = open.asked
    .filter((a) => a.state === 'waiting' && a.place === at)
    .flatMap((a) => signatories(askedOf(a), matter).map((p) => p.id));
  const supplier = await trx('supplier').where({ id: order.supplierId }).first('name');
  const asker = await trx('person').where({ id: open.round.personId }).first('name');
  const note = open.round.note === '' ? '' : `\n\nNote from ${asker?.name}: ${open.round.note}`;
  await tell(
    trx,
    {
      to,
      subject: `${again ? 'Reminder, please sign' : 'Please sign'}: order ${nameOf(order)}, ${supplier?.name}`,
      body: `${asker?.name} has asked you to sign order ${nameOf(order)} to ${supplier?.name}, ${formatMoney(open.round.value, company.currency)}.${note}`,
      path: `/sign/${order.number}`,
      orderId: order.id,
    },
    now,
  );
  return new Set(to).size;
}

/** Puts an order, or the revision of it that is being written, to sign-off: whatever signatures it lacks are asked for. */
export const requestSignOff = defineAction({
  name: 'requestSignOff',
  right: 'draft orders',
  input: z.object({ once, ...orderRef, note: anyText(300).default('') }),
  run: async (work, { orderId, version, note }) => {
    const { trx, actor, today, now, audit } = work;
    const order = await orderOf(work, orderId, version);
    if ((await openRound(trx, orderId)) !== undefined)
      refuse('signOff.open', `Sign-off of ${nameOf(order)} is already requested.`);
    const faults = await toSend(work, order, '');
    if (faults.length > 0) throw new Refused(faults);
    await checkReviewed(
      trx,
      order.lines.flatMap((l) => l.splits.flatMap((s) => s.jobId ?? [])),
    );
    const reckoning = await reckonNow(work, order);
    unlessForbidden(reckoning);
    const { facts, standing } = reckoning;
    if (standing.missing.length === 0) refuse('signOff.none', `${nameOf(order)} has all its signatures. Send it.`);
    const { names, why } = await wordsFor(work, reckoning);
    const unsent = isUnsent(order.state, order.sentFrom);
    const roundId = await insertOne(trx, 'signRound', {
      ...{ orderId, revision: unsent ? 0 : order.revision + 1, value: facts.value, note, state: 'open' },
      ...{ personId: actor.id, day: today, at: now },
    });
    await insertMany(
      trx,
      'signOff',
      standing.missing.map((n) => ({
        ...{ roundId, stepId: n.stepId, place: n.place, words: why(n), supplierId: order.supplierId },
        byPerson: n.by.kind === 'person' ? n.by.personId : null,
        byRole: n.by.kind === 'role' ? n.by.role : null,
        about: JSON.stringify(n.about.map(({ jobId, costCodeId, value }) => ({ jobId, costCodeId, value }))),
        state: 'waiting',
      })),
    );
    const open = found(await openRound(trx, orderId), 'The round of signatures');
    await checkSignable(work, order, open, names);
    await moveOn(work, order, 'askSignOff');
    await tellSigners(work, order, open);
    const who = together(standing.missing.map((n) => whoSigns(n.by, names)));
    await audit({
      words: `Requested sign-off of order ${nameOf(order)}, ${formatMoney(facts.value, names.currency)}, from ${who}${note === '' ? '' : `: ${note}`}`,
      subjects: orderSubjects(order),
      after: { value: facts.value, signatures: standing.missing.map((n) => `${whoSigns(n.by, names)}, ${why(n)}`) },
    });
  },
});

/** Somebody has to be there for every signature, or nobody is asked. */
async function checkSignable(work: Work, order: StoredOrder, open: OpenRound, names: Names): Promise<void> {
  const matter = await matterNow(work, order, open);
  const stuck = open.asked.find((a) => signatories(askedOf(a), matter).length === 0);
  if (stuck === undefined) return;
  const who = whoSigns(askedOf(stuck).by, names);
  refuse(
    'signOff.nobody',
    `No one can sign step ${stuck.place} of ${nameOf(order)}: ${who} worked on it, or can no longer sign. Name a deputy, or change the ladder.`,
  );
}

const decisionInput = { ...orderRef, signOffId: z.number().int() };

/** The signature that is to be decided, its step being the one that is signed now. */
async function toDecide(work: Work, orderId: number, version: number, signOffId: number) {
  const { trx, actor } = work;
  const order = await orderOf(work, orderId, version);
  const open = await openRound(trx, orderId);
  const row = open?.asked.find((a) => a.id === signOffId);
  if (open === undefined || row === undefined)
    return refuse('signOff.over', `${nameOf(order)} no longer needs this signature. Refresh the page.`);
  if (row.state !== 'waiting')
    return refuse('signOff.decided', `That step of ${order.number} is already signed. Refresh the page.`);
  const matter = await matterNow(work, order, open);
  if (row.place !== stepNow(matter.asked))
    return refuse('signOff.order', `${nameOf(order)} is signed in sequence, and an earlier step is still open.`);
  const forId = grant(maySign(actor.id, askedOf(row), matter));
  return { order, open, row, forId };
}

const forWhom = async ({ trx }: Work, forId: number | null): Promise<string> => {
  const person = forId === null ? undefined : await trx('person').where({ id: forId }).first('name');
  return person === undefined ? '' : ` for ${person.name}`;
};

const decide = ({ trx, actor, today, now }: Work, row: SignOffRow, change: Partial<SignOffRow>) =>
  trx('signOff')
    .where({ id: row.id })
    .update({ ...change, decidedBy: actor.id, day: today, at: now });

/** Signs an order off as it was shown: when it, or what it does to a budget, is another by now, the signer looks again. */
export const signOff = defineAction({
  name: 'signOff',
  right: 'sign orders',
  input: z.object({ once, ...decisionInput, seen: z.string().max(40), reason: anyText(300).default('') }),
  run: async (work, { orderId, version, signOffId, seen, reason: why }) => {
    const { trx, now, audit } = work;
    const { order, open, row, forId } = await toDecide(work, orderId, version, signOffId);
    const reckoning = await reckonNow(work, order);
    if (reckoning.seen !== seen)
      throw new Clash(`The budget effect of ${nameOf(order)} has changed since you opened it. Review it, then sign.`, {
        version,
      });
    await decide(work, row, { state: 'signed', forId, reason: why });
    const left = open.asked.filter((a) => a.state === 'waiting' && a.id !== row.id);
    if (left.length === 0) {
      await trx('signRound').where({ id: open.round.id }).update({ state: 'signed' });
      await moveOn(work, order, 'signOff');
      await tell(
        trx,
        {
          to: [open.round.personId],
          subject: `Signed: order ${nameOf(order)}`,
          body: `Order ${nameOf(order)} is fully signed and can be sent.`,
          path: `/orders/${order.number}`,
          orderId: order.id,
        },
        now,
      );
    } else {
      await moveOn(work, order);
      const after = found(await openRound(trx, orderId), 'The round of signatures');
      if (Math.min(...left.map((a) => a.place)) > row.place) await tellSigners(work, order, after);
    }
    await audit({
      words: `Signed step ${row.place} of order ${nameOf(order)}${await forWhom(work, forId)} (${row.words})${why === '' ? '' : `: ${why}`}`,
      subjects: orderSubjects(order),
      after: { step: row.place, value: reckoning.facts.value },
    });
    return { number: order.number, place: row.place, left: left.length };
  },
});

/** Refuses an order: it goes back to drafting with the reason, and nobody else is asked. */
export const refuseSignOff = defineAction({
  name: 'refuseSignOff',
  right: 'sign orders',
  input: z.object({ once, ...decisionInput, reason }),
  run: async (work, { orderId, version, signOffId, reason: why }) => {
    const { trx, actor, now, audit } = work;
    const { order, open, row, forId } = await toDecide(work, orderId, version, signOffId);
    await decide(work, row, { state: 'refused', forId, reason: why });
    await endRound(work, open, 'refused');
    await moveOn(work, order, 'sendBack');
    await tell(
      trx,
      {
        to: [open.round.personId],
        subject: `Declined: order ${nameOf(order)}`,
        body: `${actor.name} declined order ${nameOf(order)}: ${why}`,
        path: `/orders/${order.number}`,
        orderId: order.id,
      },
      now,
    );
    await audit({
      words: `Declined step ${row.place} of order ${nameOf(order)}${await forWhom(work, forId)}: ${why}`,
      subjects: orderSubjects(order),
    });
    return { number: order.number };
  },
});

async function endRound({ trx }: Work, { round }: OpenRound, state: 'refused' | 'takenBack'): Promise<void> {
  await trx('signRound').where({ id: round.id }).update({ state });
  await trx('signOff').where({ roundId: round.id, state: 'waiting' }).update({ state: 'gone' });
}

/** Hands a signature on to somebody else who may sign orders; what it is about stays as it is. */
export const reassignSignOff = defineAction({
  name: 'reassignSignOff',
  right: 'sign orders',
  input: z.object({ once, ...decisionInput, personId: z.number().int(), reason }),
  run: async (work, { orderId, version, signOffId, personId, reason: why }) => {
    const { trx, actor, audit } = work;
    const order = await orderOf(work, orderId, version);
    const open = found(await openRound(trx, orderId), 'The round of signatures');
    const row = found(
      open.asked.find((a) => a.id === signOffId && a.state === 'waiting'),
      'This signature',
    );
    const matter = await matterNow(work, order, open);
    const mine = maySign(actor.id, askedOf(row), matter);
    // Who wrote on the order may not sign it, and may say who does.
    if (!mine.ok && mine.refusals.every((r) => r.code === 'signOff.notYours' || r.code === 'signOff.right'))
      throw new Refused(mine.refusals);
    const to = (await loadSignatories(trx)).find((p) => p.id === personId);
    if (to === undefined)
      return refuse('handOn.who', 'This person can’t sign orders. Choose someone else.', 'personId');
    const handed: SignOffRow = { ...row, handedTo: personId, handedBy: actor.id };
    const fits = maySign(personId, askedOf(handed), matter);
    if (!fits.ok)
      refuse(
        'handOn.own',
        `${to.name} worked on ${order.number}, or already signs it. Choose someone else.`,
        'personId',
      );
    await trx('signOff').where({ id: row.id }).update({ handedTo: personId, handedBy: actor.id });
    await moveOn(work, order);
    await tellSigners(work, order, found(await openRound(trx, orderId), 'The round of signatures'));
    await audit({
      words: `Reassigned step ${row.place} of order ${nameOf(order)} to ${to.name}: ${why}`,
      subjects: [...orderSubjects(order), ['person', personId]],
    });
  },
});

/** Takes an order back from sign-off, so that it can be changed. */
export const withdrawSignOff = defineAction({
  name: 'withdrawSignOff',
  right: 'draft orders',
  input: z.object({ ...orderRef }),
  run: async (work, { orderId, version }) => {
    const order = await orderOf(work, orderId, version);
    const open = found(await openRound(work.trx, orderId), 'The round of signatures');
    await endRound(work, open, 'takenBack');
    await moveOn(work, order, 'sendBack');
    await work.audit({ words: `Withdrew order ${nameOf(order)} from sign-off`, subjects: orderSubjects(order) });
  },
});

/** Reminds whoever is to sign now. */
export const remindSigners = defineAction({
  name: 'remindSigners',
  right: 'draft orders',
  input: z.object({ once, orderId: z.number().int(), version: z.number().int() }),
  run: async (work, { orderId, version }) => {
    const order = await orderOf(work, orderId, version);
    const open = found(await openRound(work.trx, orderId), 'The round of signatures');
    const told = await tellSigners(work, order, open, true);
    await work.audit({ words: `Reminded signatories of order ${nameOf(order)}`, subjects: orderSubjects(order) });
    return { told };
  },
});
