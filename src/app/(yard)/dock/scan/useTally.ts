'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import { readScan } from '@/formats/gs1';
import {
  EMPTY,
  setAside,
  settleFound,
  settleNumber,
  type InHand,
  type NotRight,
  type Scan,
  type Settled,
  type Tally,
} from '@/core/receiving/tally';
import type { Found } from '@/queries/dock/scanning';
import { ask, asJson } from '@/ui/acting/ask';
import { makeKey } from '@/ui/acting/useAct';
import { useAgain } from '@/ui/acting/useAgain';
import { useDraft } from '@/ui/acting/useDraft';
import { useYard } from '@/ui/frame/YardContext';
import { sound } from '@/ui/kit/sound';

/**
 * A tally of what is scanned: each code is kept in the browser at once, and looked up one after the other as the server
 * answers, so that none is lost and none counts twice, also where the network comes and goes.
 */
export function useTally(within: InHand, loud: boolean) {
  const { today } = useYard();
  const draft = useDraft<Tally>('scan tally', EMPTY);
  const { value: tally, set } = draft;
  const [told, setTold] = useState('');
  const [offline, setOffline] = useState(false);
  const busy = useRef(false);
  const now = useRef(tally);
  useEffect(() => {
    now.current = tally;
  }, [tally]);
  const put = useCallback(
    (next: Tally) => {
      now.current = next;
      set(next);
    },
    [set],
  );
  /** Looks a code up and counts it, or sets it aside; nothing becomes of it while the server does not answer. */
  const lookUp = useCallback(
    async (scan: Scan): Promise<Settled | undefined> => {
      const number = settleNumber(now.current, scan);
      if (number !== undefined) return number;
      const read = readScan(scan.code, today);
      if (!read.ok) return setAside(now.current, scan, read.refusals[0]?.message ?? '');
      const { words, ...said } = read.value;
      const body = JSON.stringify({ words });
      const found = await ask<Found>('/dock/scan/find', asJson(body, new AbortController().signal));
      return found && settleFound(now.current, scan, said, found, within);
    },
    // eslint-disable-next-line react-hooks/exhaustive-deps -- what is in hand is compared by what it says
    [within.orderId, within.supplierId, today],
  );

  const work = useCallback(async () => {
    if (busy.current) return;
    busy.current = true;
    for (;;) {
      const next = now.current.scans.find((s) => s.waits === true);
      const settled = next && (await lookUp(next));
      if (settled === undefined) {
        setOffline(next !== undefined);
        break;
      }
      put(settled.tally);
      setTold(settled.words);
      if (loud) sound(settled.took);
    }
    busy.current = false;
  }, [lookUp, put, loud]);

  useAgain(() => now.current.scans.some((s) => s.waits === true) && void work());

  const scan = (code: string) => {
    put({ ...now.current, scans: [...now.current.scans, { key: makeKey(), code, count: 1, placed: [], waits: true }] });
    void work();
  };
  const drop = (key: string) => put({ ...now.current, scans: now.current.scans.filter((s) => s.key !== key) });
  const undo = () => {
    const last = now.current.scans.at(-1);
    if (last === undefined) return;
    drop(last.key);
    setTold(`Scan of ${last.code} undone`);
  };
  /** What was set aside is looked up again, after it was tied to a part. */
  const retry = (key: string) => {
    const scans = now.current.scans.map(({ aside, ...s }) =>
      s.key === key ? { ...s, waits: true as const } : { ...s, ...(aside === undefined ? {} : { aside }) },
    );
    put({ ...now.current, scans });
    void work();
  };
  /** Somebody else took some of it in: all of it is looked up anew, against what is due now. */
  const lookAgain = () => {
    const scans = now.current.scans.map(({ key, code, aside }) => ({
      ...{ key, code, count: 1, placed: [] },
      ...(aside === undefined ? { waits: true as const } : { aside }),
    }));
    put({ ...now.current, scans, lines: [] });
    void work();
  };
  const sayNotRight = (lineId: number, said: NotRight) =>
    put({ ...now.current, notRight: { ...now.current.notRight, [lineId]: said } });
  const sayNote = (note: string) => put({ ...now.current, note });
  const forget = () => {
    draft.restart();
    now.current = EMPTY;
  };
  return { tally, told, offline, kept: draft.kept, scan, undo, drop, retry, sayNotRight, sayNote, lookAgain, forget };
}
