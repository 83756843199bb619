'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { formatMoney, type Minor } from '@/core/money/money';
import { counted } from '@/core/words';
import type { SignStep, SignView } from '@/queries/signoff/signOff';
import type { SignPage } from '@/queries/signoff/toSign';
import { EffectList } from '@/ui/jobs/EffectList';
import { SignSteps } from '@/ui/signoff/SignSteps';
import Link from '@/ui/kit/Link';
import { later } from '@/ui/acting/later';
import { useKey } from '@/ui/frame/keys';
import { TextField } from '@/ui/kit/Field';
import { ReasonQuestion } from '@/ui/kit/Reason';
import { Sheet } from '@/ui/kit/Sheet';
import { Fact, Shelf, ShelfMain, ShelfNext, ShelfPlain } from '@/ui/kit/Shelf';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../actions';
import { ChangeList } from '../../orders/[order]/Revising';
import { LinesToSign } from './LinesToSign';

const HandOn = later(() => import('./HandOn'));

type Props = {
  readonly page: SignPage;
  /** The next order that waits for this person, and how many do. */
  readonly next: string | undefined;
  readonly left: number;
};

/** An order as who signs it looks at it: what it comes to, what it does, who signs, what was paid, who was passed over. */
export function SignOrder({ page: { view, lines }, next, left }: Props) {
  const { order, supplier, effects, signing, revising, checks } = view;
  const { currency, day } = useYard();
  const money = (amount: Minor) => formatMoney(amount, currency);
  const what = lines
    .filter((l) => l.net !== 0)
    .slice(0, 2)
    .map((l) => l.description);
  const more = lines.length - what.length;
  const mine = signing?.steps.find((s) => s.mine !== null);
  const look = checks.filter((c) => !c.good);
  const who = (
    <>
      <h2 className="mb-1.5 text-[16px]">Who signs</h2>
      {signing === undefined || signing.steps.length === 0 ? (
        <p className="text-ink-2">No sign-off requested.</p>
      ) : (
        <SignSteps steps={signing.steps} />
      )}
    </>
  );
  return (
    <Sheet
      aside={
        <>
          <div className="max-lg:hidden">{who}</div>
          {look.length > 0 && (
            <>
              <h2 className="mt-5 mb-1 text-[16px]">Check</h2>
              <ul className="grid gap-1">
                {look.map((c) => (
                  <li key={c.words} className="flex gap-1.5">
                    <b aria-hidden className="text-amber">
                      !
                    </b>
                    {c.words}
                  </li>
                ))}
              </ul>
            </>
          )}
        </>
      }
    >
      <p className="text-ink-2">
        {signing?.round == null ? 'Sign-off not requested' : mine === undefined ? 'Awaiting sign-off' : 'To sign'}
        {revising !== undefined && `, revision ${revising.number}: ${revising.reason}`}
      </p>
      <h1 className="text-[25px] leading-tight">
        <Link href={`/orders/${order.number}`} className="mono hover:underline">
          {order.number}
        </Link>
      </h1>
      <p className="mb-2">
        <b>{supplier.name}</b>{' '}
        <span className="text-ink-2">
          {what.join(', ')}
          {more > 0 && `, and ${counted(more, 'more line')}`}
        </span>
      </p>
      {signing?.round != null && (
        <p className="mb-2 max-w-[720px]">
          <span className="text-ink-2">
            {signing.round.askedBy}, {day(signing.round.day)}
          </span>
          {signing.round.note !== '' && <>: “{signing.round.note}”</>}
        </p>
      )}
      <dl className="max-w-[720px] border-t border-ink">
        <Sum name="Cost to jobs">{money(signing?.value ?? order.net)}</Sum>
        {signing?.quoted != null && (
          <Sum
            name={
              signing.quoted.pays === signing.value
                ? 'Quoted for this'
                : `Quoted for ${money(signing.quoted.pays)} of it`
            }
          >
            {money(signing.quoted.quoted)}
          </Sum>
        )}
      </dl>
      {revising !== undefined && (
        <section aria-label="Changes" className="mt-4 max-w-[720px]">
          <h2 className="mb-1 text-[16px]">Changes</h2>
          <ChangeList changes={revising.changes} />
        </section>
      )}
      <section aria-label="Effect on budgets" className="mt-4 max-w-[720px]">
        <h2 className="text-[16px]">Effect on budgets</h2>
        <EffectList effects={effects} />
      </section>
      <section aria-label="Who signs" className="mt-4 lg:hidden">
        {who}
      </section>
      <LinesToSign lines={lines} currency={order.currency} />
      <SignShelf view={view} signing={signing} mine={mine} next={next} left={left} />
    </Sheet>
  );
}

const Sum = ({ name, children }: { readonly name: string; readonly children: string }) => (
  <div className="flex justify-between gap-4 border-b border-line py-2">
    <dt>{name}</dt>
    <dd className="font-bold whitespace-nowrap">{children}</dd>
  </div>
);

type ShelfProps = {
  readonly view: SignPage['view'];
  readonly signing: SignView | undefined;
  readonly mine: SignStep | undefined;
} & Omit<Props, 'page'>;

function SignShelf({ view: { order }, signing, mine, next, left }: ShelfProps) {
  const router = useRouter();
  const { currency } = useYard();
  const once = useOnce();
  const [word, setWord] = useState('');
  const [asking, setAsking] = useState<'refuse' | 'handOn'>();
  const goOn = () => router.push(next === undefined ? '/sign' : `/sign/${next}`);
  const sign = useAct(acts.signOff, {
    said: ({ number, place, left: open }) => `Step ${place} of ${number} signed${open === 0 ? ': ready to send' : ''}`,
    onDone: goOn,
  });
  const refuse = useAct(acts.refuseSignOff, { said: ({ number }) => `${number} declined`, onDone: goOn });
  const ref = { orderId: order.id, version: order.version, signOffId: mine?.signOffId ?? 0 };
  const signNow = () => void sign.run({ once: once.key(), ...ref, seen: signing?.seen ?? '', reason: word });
  useKey('Ctrl+Enter', 'Sign', signNow, mine !== undefined && !sign.busy && asking === undefined);
  const fault = sign.clash
    ? `${sign.clash.message} This is the latest version: check it, then try again.`
    : sign.refusals[0]?.message;
  return (
    <>
      {mine !== undefined && (
        <div className="mt-5 max-w-[720px]">
          <TextField label="Note (optional)" value={word} maxLength={300} onChange={(e) => setWord(e.target.value)} />
          <button type="button" className="step mt-2" onClick={() => setAsking('handOn')}>
            Reassign
          </button>
        </div>
      )}
      <Shelf
        fault={fault}
        facts={
          <>
            <Fact strong>{formatMoney(signing?.value ?? order.net, currency)}</Fact>
            <Fact>{left === 0 ? 'last one to sign' : `${counted(left, 'more order')} to sign`}</Fact>
          </>
        }
      >
        {mine === undefined ? (
          <ShelfNext next={next === undefined ? undefined : { words: `Next ${next}`, href: `/sign/${next}` }} main />
        ) : (
          <>
            <ShelfPlain onClick={() => setAsking('refuse')}>Decline</ShelfPlain>
            <ShelfMain onClick={signNow} disabled={sign.busy} hint="Ctrl ↵">
              {sign.busy ? 'Signing…' : `Sign step ${mine.place}`}
            </ShelfMain>
          </>
        )}
      </Shelf>
      {asking === 'refuse' && (
        <ReasonQuestion
          title={`Decline ${order.number}?`}
          words="It goes back to draft with your reason; no one else is asked to sign."
          keep="Cancel"
          go="Decline"
          act={refuse}
          onClose={() => setAsking(undefined)}
          onGo={(reason) => void refuse.run({ once: `${once.key()}-no`, ...ref, reason })}
        />
      )}
      {asking === 'handOn' && <HandOn number={order.number} signOff={ref} onClose={() => setAsking(undefined)} />}
    </>
  );
}
