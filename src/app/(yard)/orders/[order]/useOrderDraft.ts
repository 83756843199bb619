import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Refusal } from '@/core/result';
import type { OrderPreview } from '@/queries/orders/preview';
import type { ItemTerms } from '@/queries/orders/terms';
import type { loadOrderForm, OrderView } from '@/queries/orders/order';
import { ask, asJson } from '@/ui/acting/ask';
import { unknownWords, type Fault } from '@/ui/entry/reading';
import { useTyped, type Kept } from '@/ui/entry/useTyped';
import { withTerms, type LineText } from '@/ui/orders/orderLineText';
import { HEAD_KEYS, orderText, readOrder, type OrderText, type Typeable } from '@/ui/orders/orderText';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { acts } from '../../../actions';

export type OrderFormChoices = Awaited<ReturnType<typeof loadOrderForm>>;

const WAIT = 200;
/** So long saving waits at most for what the supplier says of a part that was taken just now. */
const TERMS = 3000;

/** What is typed on: the order, or the revision of it that is being written. */
export const typedOn = ({ order, revising }: OrderView): Typeable =>
  revising === undefined ? order : { ...order, ...revising.terms, lines: revising.lines };

/** A draft as it is typed: kept in the browser, read, and what it would do worked out by the server while one types. */
export function useOrderDraft(view: OrderView, form: OrderFormChoices) {
  const { order, revising } = view;
  const saved = useMemo(() => ({ version: order.version, value: orderText(typedOn(view), view) }), [order, view]);
  const typed = useTyped(
    `order ${order.id}, ${revising === undefined ? 'in place' : `revision ${revising.number}`}`,
    saved,
  );
  const { version, value: text, set, steps } = typed;
  const changes = useMemo(() => changesOf(saved.value, text), [saved, text]);
  const [tried, setTried] = useState(false);
  const once = useOnce();
  const at = useRef<number>(undefined);
  const router = useRouter();
  const saying = {
    said: () => (revising === undefined ? `${order.number} saved` : `Revision ${revising.number} saved`),
    onDone: (saved: { readonly version: number; readonly number: string }) => {
      once.renew();
      setTried(false);
      at.current = saved.version;
      typed.savedAs(saved.version);
      if (saved.number !== order.number) router.replace(`/orders/${saved.number}`);
    },
  };
  const drafting = useAct(acts.changeOrder, saying);
  const writing = useAct(acts.changeRevision, saying);
  const act = revising === undefined ? drafting : writing;
  const read = useMemo(() => readOrder(text, order.currency), [text, order.currency]);
  /** Answers the version that was saved; undefined when something stands against it. */
  const saveNow = async (kept: Kept<OrderText> = { version, value: text }): Promise<number | undefined> => {
    const { value, faults } = readOrder(kept.value, order.currency);
    setTried(true);
    if (faults.length > 0) return undefined;
    const { number, ...content } = value;
    const ref = { once: once.key(), orderId: order.id, version: kept.version };
    const done =
      revising === undefined
        ? await drafting.run({ ...ref, number, ...content })
        : await writing.run({ ...ref, ...content });
    return done ? at.current : undefined;
  };
  const asking = text.lines.some((l) => l.asks === true);
  const latest = useRef(saveNow);
  const told = useRef<(() => void)[]>([]);
  useEffect(() => {
    latest.current = saveNow;
    if (!asking) for (const go of told.current.splice(0)) go();
  });
  /** Saves what is typed, with the unit and price of parts that are still asked for. */
  const save = async (): Promise<number | undefined> => {
    if (asking)
      await new Promise<void>((go) => {
        told.current.push(go);
        setTimeout(go, TERMS);
      });
    return latest.current();
  };
  const putBack = () => {
    typed.putBack();
    act.clear();
  };
  const settle = (theirs: number) => (settled: OrderText) => {
    const kept = { version: theirs, value: settled };
    once.renew();
    act.clear();
    typed.keep(kept);
    void saveNow(kept);
  };
  const terms = useTerms(order.number, form.terms, text.lines, (found) =>
    set((now) => ({
      ...now,
      lines: now.lines.map((l) => {
        const known = l.asks === true ? found.get(l.itemId ?? 0) : undefined;
        return known === undefined ? l : withTerms(l, known, order.currency);
      }),
    })),
  );
  const preview = usePreview(view, text, read, changes.length > 0);
  // Nothing is red while one still types: cells say what is wrong once saving was tried, words that are unknown at once.
  const faults: readonly (Fault | Refusal)[] = [...(tried ? read.faults : unknownWords(read.faults)), ...act.refusals];
  const { waits, saved: savedAs } = typed;
  return { text, set, steps, changes, act, waits, savedAs, read, save, putBack, settle, faults, terms, preview };
}

/** What is changed and not saved, in cells and lines. */
function changesOf(saved: OrderText, text: OrderText): string[] {
  if (saved === text) return [];
  const before = new Map(saved.lines.map((l) => [l.key, l]));
  const own = (l: LineText) => JSON.stringify(l);
  const head = HEAD_KEYS.filter((k) => JSON.stringify(saved[k]) !== JSON.stringify(text[k]));
  const kept = text.lines.filter((l) => before.has(l.key));
  const moved =
    kept.map((l) => l.key).join() !==
    saved.lines
      .filter((l) => kept.some((k) => k.key === l.key))
      .map((l) => l.key)
      .join();
  return [
    ...head,
    ...text.lines.filter((l) => own(before.get(l.key) ?? l) !== own(l) || !before.has(l.key)).map((l) => l.key),
    ...saved.lines.filter((l) => !text.lines.some((t) => t.key === l.key)).map((l) => l.key),
    ...(moved ? ['order of the lines'] : []),
  ];
}

/** What the supplier says of the parts on the order; asked for those that were taken just now. */
function useTerms(
  number: string,
  known: readonly ItemTerms[],
  lines: readonly LineText[],
  onFound: (found: ReadonlyMap<number, ItemTerms>) => void,
): ReadonlyMap<number, ItemTerms> {
  const [found, setFound] = useState<readonly ItemTerms[]>([]);
  const terms = useMemo(() => new Map([...known, ...found].map((t) => [t.itemId, t])), [known, found]);
  const asked = JSON.stringify([...new Set(lines.flatMap((l) => (l.asks === true ? (l.itemId ?? []) : [])))]);
  useEffect(() => {
    const itemIds = JSON.parse(asked) as number[];
    if (itemIds.length === 0) return;
    if (itemIds.every((id) => terms.has(id))) return onFound(terms);
    const stop = new AbortController();
    void ask<ItemTerms[]>(`/orders/${number}/terms`, asJson(JSON.stringify({ itemIds }), stop.signal)).then(
      (told) => told !== undefined && setFound((now) => [...now, ...told]),
    );
    return () => stop.abort();
    // eslint-disable-next-line react-hooks/exhaustive-deps -- what is done with them is always the same
  }, [asked, terms, number]);
  return terms;
}

/** Checks and effects of what is typed, shortly after it was; those of the saved order while nothing is changed. */
function usePreview(
  view: OrderView,
  text: OrderText,
  { value }: ReturnType<typeof readOrder>,
  changed: boolean,
): Omit<Required<OrderPreview>, 'signing'> & Pick<OrderView, 'signing'> {
  const [told, setTold] = useState<OrderPreview>();
  const [effects, setEffects] = useState(view.effects);
  const lines = value.lines.map((l, k) => ({
    ...l,
    description: l.description || '…',
    // A part with no job chosen yet goes nowhere, not to stores.
    splits: l.splits.filter((_, j) => text.lines[k]?.splits[j]?.job.thing != null),
  }));
  const body = changed ? JSON.stringify({ lines }) : '';
  useEffect(() => {
    if (body === '') return;
    const stop = new AbortController();
    const wait = setTimeout(() => {
      void ask<OrderPreview>(`/orders/${view.order.number}/preview`, asJson(body, stop.signal)).then((preview) => {
        if (preview === undefined) return;
        setTold(preview);
        if (preview.effects !== undefined) setEffects(preview.effects);
      });
    }, WAIT);
    return () => {
      clearTimeout(wait);
      stop.abort();
    };
  }, [body, view.order.number]);
  const saved = view.revising?.changes ?? [];
  return changed
    ? {
        checks: told?.checks ?? view.checks,
        effects,
        changes: told?.changes ?? saved,
        signing: told?.signing ?? view.signing,
      }
    : { checks: view.checks, effects: view.effects, changes: saved, signing: view.signing };
}
