'use client';

import { useEffect, useState } from 'react';
import { formatAmount, formatPrice, signOf } from '@/core/money/money';
import { marginWords } from '@/core/quotes/margin';
import { eachOf, type Priced } from '@/core/quotes/pieces';
import { counted } from '@/core/words';
import { ask, asJson } from '@/ui/acting/ask';
import { Wide } from '@/ui/kit/Sheet';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../../actions';

type Props = {
  readonly quote: { readonly id: number; readonly version: number; readonly pieces: number | null };
  readonly job: string;
  /** The lines as they are typed, as the server is asked for them; undefined while they cannot be read. */
  readonly typed: string | undefined;
  /** Whether nothing is typed that is not saved, so that the quote can be written for another number. */
  readonly mayWrite: boolean;
};

const WAIT = 300;

/** A quote priced for several numbers of pieces, side by side, as it is typed. */
export function SideBySide({ quote, job, typed, mayWrite }: Props) {
  const { currency } = useYard();
  const [priced, setPriced] = useState<readonly Priced[]>([]);
  const once = useOnce();
  const act = useAct(acts.writeForPieces, { onDone: () => once.renew() });
  useEffect(() => {
    if (typed === undefined) return undefined;
    const stop = new AbortController();
    const wait = setTimeout(() => {
      void ask<Priced[]>(`/jobs/${job}/quote/pieces`, asJson(typed, stop.signal)).then(
        (found) => found !== undefined && setPriced(found),
      );
    }, WAIT);
    return () => {
      clearTimeout(wait);
      stop.abort();
    };
  }, [typed, job]);
  if (priced.length === 0) return null;
  return (
    <Wide label="Quantity prices">
      <table className="ledger mt-6 max-w-[760px]">
        <thead>
          <tr>
            <th scope="col">For</th>
            <th scope="col" className="num">
              Cost {signOf(currency)}
            </th>
            <th scope="col" className="num">
              Sold for
            </th>
            <th scope="col" className="num">
              Cost each
            </th>
            <th scope="col" className="num">
              Price each
            </th>
            <th scope="col" className="num">
              Margin %
            </th>
            <th scope="col">
              <span className="sr-only">Rewrite lines for</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {priced.map((p) => (
            <tr key={p.pieces} className={p.pieces === quote.pieces ? 'whole' : ''}>
              <th scope="row" className="text-left !font-normal whitespace-nowrap">
                {p.pieces === quote.pieces ? <b>{counted(p.pieces, 'piece')}</b> : counted(p.pieces, 'piece')}
              </th>
              <td className="num">{formatAmount(p.cost, currency)}</td>
              <td className="num">{formatAmount(p.price, currency)}</td>
              <td className="num">{formatPrice(eachOf(p.cost, p.pieces, currency), currency)}</td>
              <td className="num">{formatPrice(eachOf(p.price, p.pieces, currency), currency)}</td>
              <td className="num">{marginWords(p.cost, p.price)}</td>
              <td className="text-right whitespace-nowrap">
                {p.pieces === quote.pieces ? (
                  <span className="text-ink-2">current</span>
                ) : (
                  <button
                    type="button"
                    className="step disabled:opacity-40"
                    disabled={!mayWrite || act.busy}
                    onClick={() =>
                      void act.run({
                        once: once.key(),
                        ...{ quoteId: quote.id, version: quote.version, pieces: p.pieces },
                      })
                    }
                  >
                    Rewrite for {p.pieces}
                  </button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Wide>
  );
}
