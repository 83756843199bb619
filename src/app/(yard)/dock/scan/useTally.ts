'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import { readScan } from '@/formats/gs1';
import { patternFault } from '@/core/stores/numbers';
import {
  EMPTY,
  isInHand,
  knowing,
  lacks,
  placeScan,
  talliedLines,
  type AwaitedLine,
  type InHand,
  type NotRight,
  type Scan,
  type Tally,
} from '@/core/receiving/tally';
import type { Found } from '@/queries/dock/scanning';
import { ask, asJson } from '@/ui/acting/ask';
import { makeKey } from '@/ui/acting/useAct';
import { useAgain } from '@/ui/acting/useAgain';
import { useDraft } from '@/ui/acting/useDraft';
import { sound } from '@/ui/kit/sound';

/**
 * A tally of what is scanned: each code is kept in the browser at once, and looked up one after the other as the server
 * answers, so that none is lost and none counts twice, also where the network comes and goes.
 */
export function useTally(within: InHand, loud: boolean) {
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
  const settle = useCallback(
    (scan: Scan, tallied: Tally, words: string) => {
      put({ ...tallied, scans: tallied.scans.map((s) => (s.key === scan.key ? scan : s)) });
      setTold(words);
      if (loud) sound(scan.aside === undefined);
    },
    [put, loud],
  );

  const lookUp = useCallback(
    async (waiting: Scan): Promise<boolean> => {
      const { waits: _, ...scan } = waiting;
      const aside = (words: string) => settle({ ...scan, placed: [], aside: words }, now.current, words);
      const wanting = wantsNumber(now.current);
      if (
        wanting !== undefined &&
        wanting.numberPattern !== '' &&
        patternFault(scan.code, wanting.numberPattern) === undefined
      )
        return (takeNumber(scan, wanting), true);
      const read = readScan(scan.code);
      if (!read.ok) return (aside(read.refusals[0]?.message ?? ''), true);
      const body = JSON.stringify({ words: read.value.words });
      const found = await ask<Found>('/dock/scan/find', asJson(body, new AbortController().signal));
      if (found === undefined) return false;
      if (found.part === null && found.lines.length === 0)
        return wanting === undefined ? (aside('No item has this code.'), true) : (takeNumber(scan, wanting), true);
      const { words: __, count, order, ...said } = read.value;
      const known = knowing(now.current, found.lines);
      const ordered = found.lines.filter((l) => l.order === order);
      const lines = ordered.length > 0 ? ordered : found.lines;
      const twice = said.serial !== undefined && hasNumber(known, said.serial);
      if (twice) return (aside(`${said.serial} is already scanned.`), true);
      const placed = placeScan(known, lines, count, within);
      const name = found.part?.name ?? found.lines[0]?.description ?? '';
      if (placed.length === 0) {
        const elsewhere = found.lines.length > 0 && !found.lines.some((l) => isInHand(l, within));
        if (elsewhere) return (aside(`${name} is due on a different order.`), true);
        return (
          aside(found.lines.length === 0 ? `${name} is not due on any order.` : `More ${name} than is due.`),
          true
        );
      }
      settle({ ...scan, ...said, count, placed }, known, `${name} scanned`);
      return true;
    },
    // eslint-disable-next-line react-hooks/exhaustive-deps -- what is in hand is compared by what it says
    [settle, within.orderId, within.supplierId],
  );

  /** A code that is no part is the serial number of the piece that was scanned before it. */
  const takeNumber = (scan: Scan, line: AwaitedLine) => {
    const fault = patternFault(scan.code, line.numberPattern)?.message;
    const twice = hasNumber(now.current, scan.code) ? `${scan.code} is already scanned.` : undefined;
    const words = twice ?? fault;
    const placed = [{ lineId: line.lineId, quantity: 0 as never }];
    if (words !== undefined) settle({ ...scan, placed: [], aside: words }, now.current, words);
    else
      settle(
        { ...scan, count: 0, serial: scan.code, placed },
        now.current,
        `${scan.code} belongs to ${line.description}`,
      );
  };

  const work = useCallback(async () => {
    if (busy.current) return;
    busy.current = true;
    for (;;) {
      const next = now.current.scans.find((s) => s.waits === true);
      if (next === undefined || !(await lookUp(next))) {
        setOffline(next !== undefined);
        break;
      }
    }
    busy.current = false;
  }, [lookUp]);

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

/** The line whose last piece waits for its serial number. */
const wantsNumber = (tally: Tally): AwaitedLine | undefined =>
  talliedLines(tally).find((t) => t.line.tracking === 'serial' && lacks(t) > 0)?.line;

const hasNumber = (tally: Tally, number: string): boolean =>
  tally.scans.some((s) => s.serial?.toUpperCase() === number.toUpperCase());
