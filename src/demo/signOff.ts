import { nameDeputy, saveLadder } from '@/actions/signoff/ladder';
import { sendNotices } from '@/actions/people/notices';
import { requestSignOff, signOff } from '@/actions/signoff/signOff';
import type { StepFields } from '@/core/records/signoff';
import { findOrder } from '@/store/orders';
import { openRound, reckon, sendingOf } from '@/workings/signoff/reckon';
import type { PersonKey } from './catalogue';
import { must, pence, type DemoYard } from './yard';

const ANY: Omit<StepFields, 'signers'> = {
  valueAbove: null,
  overAbove: null,
  costCodeId: null,
  supplierId: null,
  jobKind: null,
  currency: null,
  onRule: false,
};

/** The yard's ladder, who signs for the manager this week, and an order that waits for its second signature. */
export async function layOutSignOff(yard: DemoYard): Promise<void> {
  const [wren, tomas, ida] = [await idOf(yard, 'wren'), await idOf(yard, 'tomas'), await idOf(yard, 'ida')];
  const company = await yard.db('company').first('version');
  must(
    await saveLadder(await yard.as('wren', -2), {
      once: yard.once(),
      version: company?.version ?? 0,
      steps: [
        { ...ANY, valueAbove: pence(1000), signers: [{ kind: 'lead' }] },
        { ...ANY, overAbove: pence(100), signers: [{ kind: 'role', role: 'manager' }] },
        { ...ANY, valueAbove: pence(2500), signers: [{ kind: 'person', personId: wren }] },
      ],
      signToleranceShare: 200,
      signToleranceMost: pence(25),
    }),
  );
  const away = { personId: tomas, deputyId: ida, fromDay: yard.day(0), toDay: yard.day(3) };
  must(await nameDeputy(await yard.as('tomas', -1), { once: yard.once(), ...away }));
  await askAndSignOnce(yard);
  await sendNotices(await yard.as('mina', -1), 'https://kettle.wrackline.example');
}

const idOf = async (yard: DemoYard, who: PersonKey): Promise<number> => (await yard.as(who, 0)).actor.id;

/** Green oak for one job: its lead has signed, and it waits for the second signature. */
async function askAndSignOnce(yard: DemoYard): Promise<void> {
  await yard.play({ on: -1, lines: ['422/TI-OAK'] });
  const { id } = (await yard.db('purchaseOrder').orderBy('id', 'desc').first('id')) ?? { id: 0 };
  const ref = async () => ({ once: yard.once(), orderId: id, version: (await findOrder(yard.db, id))?.version ?? 0 });
  const note = 'The mill holds it for us until Friday';
  must(await requestSignOff(await yard.as('mina', -1, 11), { ...(await ref()), note }));
  const order = await findOrder(yard.db, id);
  const sending = order && (await sendingOf(yard.db, order, yard.day(-1)));
  if (order === undefined || sending === undefined) throw new Error('The order is gone.');
  const { seen } = await reckon(yard.db, order, sending);
  const open = await openRound(yard.db, id);
  const signOffId = open?.asked[0]?.id ?? 0;
  const reason = 'As quoted, and the frames wait for it';
  must(await signOff(await yard.as('asha', -1, 15), { ...(await ref()), signOffId, seen, reason }));
}
