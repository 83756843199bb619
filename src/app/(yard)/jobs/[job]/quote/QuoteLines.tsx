'use client';

import { LIMITS } from '@/core/limits';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { formatMoney } from '@/core/money/money';
import { QUOTE_STATE_NAMES, isOpenQuote } from '@/core/quotes/winning';
import type { QuoteView } from '@/queries/jobs/job';
import type { Revised } from '@/queries/quotes/revision';
import { useKey } from '@/ui/frame/keys';
import { Fact, Shelf, ShelfMain, ShelfPlain } from '@/ui/kit/Shelf';
import { Further } from '@/ui/kit/Sheet';
import { TakeOut } from '@/ui/kit/TakeOut';
import { Versions } from '@/ui/kit/Versions';
import { useAct } from '@/ui/acting/useAct';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../../actions';
import { standing } from '@/ui/entry/reading';
import { QuoteSheet, useQuoteSheet } from './QuoteSheet';
import { EarlySlip } from './EarlySlip';
import { QuoteSums } from './QuoteSums';
import { SettledQuote } from './SettledQuote';
import { Revise } from './Revise';
import { SideBySide } from './SideBySide';
import { SayingSlip } from './SayingSlip';
import { WinSlip } from './WinSlip';
import Link from '@/ui/kit/Link';
import { counted } from '@/core/words';

const FILE_INPUT = 'quote-file';
const chooseFile = () => document.getElementById(FILE_INPUT)?.click();

type Props = {
  readonly quote: QuoteView;
  readonly job: string;
  /** The won quote that this one is to take the place of. */
  readonly revised: Revised | undefined;
  /** A file that was looked for is brought in already, or replaced. */
  readonly gone: boolean;
  /** Whether there is a sample file to try. */
  readonly sample: boolean;
};

/** A job's quote: filled in where it stands while it is open, looked at once it is won or lost. */
export function QuoteLines(props: Props) {
  const { quote, job } = props;
  const { may } = useYard();
  const open = isOpenQuote(quote) && quote.revisedAs === null;
  return (
    <div className="mt-3">
      <State quote={quote} job={job} revised={props.revised} />
      {open && may('import quotes') ? <OpenQuote {...props} /> : <SettledQuote quote={quote} job={job} />}
      <Further
        to={`/jobs/${job}/quote`}
        before={quote.before}
        shown={quote.rows.length}
        of={quote.whole.lines}
        after={quote.rows.at(-1)?.place}
      />
    </div>
  );
}

function State({ quote, job, revised }: Pick<Props, 'quote' | 'job' | 'revised'>) {
  const { day } = useYard();
  const { state, revisedAs, movedBy, movedOn, takes, validUntil, all } = quote;
  const moved = movedOn === null ? '' : ` since ${day(movedOn)}${movedBy === null ? '' : `, ${movedBy}`}`;
  const says = [
    quote.pieces === null ? '' : `for ${counted(quote.pieces, 'piece')}`,
    takes,
    validUntil === null ? '' : `valid until ${day(validUntil)}`,
  ]
    .filter(Boolean)
    .join(' · ');
  return (
    <p className="mb-2 flex flex-wrap items-baseline justify-between gap-x-4 text-ink-2">
      <span>
        <span className="mono font-bold text-ink">{quote.number}</span> ·{' '}
        {state === 'won'
          ? `won ${day(quote.wonOn)}: accepted by ${quote.wonBy}, entered by ${quote.markedBy}`
          : `${QUOTE_STATE_NAMES[state].toLowerCase()}${moved}`}
        {quote.early !== null && <b className="text-amber"> · bought before acceptance: {quote.early}</b>}
        {revisedAs !== null && <b className="text-ink"> · revised as {revisedAs}</b>}
        {revised !== undefined && <b className="text-ink"> · {revised.number} applies until this revision is won</b>}
        {says !== '' && ` · ${says}`}
        {all.length > 1 &&
          all
            .filter((q) => q.id !== quote.id)
            .map((q) => (
              <span key={q.id}>
                {' · '}
                <Link className="step mono" href={`/jobs/${job}/quote?quote=${q.id}`}>
                  {q.number}
                </Link>
              </span>
            ))}
      </span>
      <span className="flex gap-4">
        {quote.whole.lines > 0 && (
          <a className="step" href={`/jobs/${job}/quote/pdf?quote=${quote.id}`} target="_blank" rel="noreferrer">
            Customer PDF
          </a>
        )}
        {quote.whole.lines > 0 && <TakeOut list="quote" of={{ job }} />}
      </span>
    </p>
  );
}

function OpenQuote({ quote, job, revised, gone, sample }: Props) {
  const { currency, may } = useYard();
  const [winning, setWinning] = useState(false);
  const [saying, setSaying] = useState(false);
  const [early, setEarly] = useState(false);
  const upload = useUpload(quote.id, job);
  const move = useAct(acts.moveQuote);
  const sheet = useQuoteSheet(quote);
  const unsaved = sheet.count > 0;
  const full = quote.whole.lines > 0;
  const mayWin = may('win quotes');
  /** What is typed is saved first, so that what is seen is what is won. */
  const win = async () => {
    if (!unsaved || (await sheet.save())) setWinning(true);
  };
  const saving = sheet.act.busy || sheet.typed.waits;
  useKey('Ctrl+Enter', 'Save', () => void sheet.save(), unsaved && !saving && !winning);
  useKey('Ctrl+Enter', 'Mark won', () => setWinning(true), !unsaved && full && mayWin && !winning);
  if (sheet.clash !== undefined) return <Versions {...sheet.clash} />;
  const fault =
    upload.fault ??
    sheet.act.clash?.message ??
    move.clash?.message ??
    move.refusals[0]?.message ??
    standing(sheet.faults, (k) => quote.before + k + 1) ??
    (gone ? 'That file has already been imported or replaced. Choose it again if you still need it.' : undefined);
  return (
    <div
      onDragOver={(e) => e.dataTransfer.types.includes('Files') && e.preventDefault()}
      onDrop={(e) => {
        if (!e.dataTransfer.types.includes('Files')) return;
        e.preventDefault();
        void upload.send(e.dataTransfer.files[0]);
      }}
    >
      <input
        id={FILE_INPUT}
        type="file"
        accept=".csv,.txt,.tsv,.xlsx,text/csv"
        aria-label="Quote file"
        className="sr-only"
        tabIndex={-1}
        onChange={(e) => {
          void upload.send(e.target.files?.[0]);
          e.target.value = '';
        }}
      />
      <QuoteSheet sheet={sheet} before={quote.before} byPiece={quote.pieces !== null} />
      <QuoteSums codes={sheet.codes} currency={currency} />
      {quote.pieces !== null && full && <SideBySide quote={quote} job={job} typed={sheet.priced} mayWrite={!unsaved} />}
      {!full && (
        <p className="mt-4 max-w-[620px] text-ink-2">
          No lines yet. Type the first above, paste rows from a spreadsheet, or import a CSV or XLSX file: choose it
          below or drop it here.
          {sample && (
            <>
              {' '}
              Try it with{' '}
              <a href="/sample-quote" download className="step">
                the sample quote file
              </a>
              .
            </>
          )}
        </p>
      )}
      <Shelf
        fault={fault}
        facts={
          <>
            <Fact strong>{counted(quote.whole.lines + sheet.lines.length - quote.rows.length, 'line')}</Fact>
            <Fact>cost {formatMoney(sheet.cost, currency)}</Fact>
            <Fact>price {formatMoney(sheet.price, currency)}</Fact>
            {unsaved && <Fact>{sheet.words}</Fact>}
          </>
        }
      >
        {unsaved && <ShelfPlain onClick={sheet.typed.putBack}>Discard changes</ShelfPlain>}
        {!unsaved && mayWin && full && quote.state === 'writing' && (
          <ShelfPlain
            disabled={move.busy}
            onClick={() => void move.run({ quoteId: quote.id, version: quote.version, to: 'withCustomer' })}
          >
            Mark as sent
          </ShelfPlain>
        )}
        {!unsaved && mayWin && (quote.state === 'withCustomer' || revised !== undefined) && (
          <ShelfPlain
            disabled={move.busy}
            onClick={() => void move.run({ quoteId: quote.id, version: quote.version, to: 'lost' })}
          >
            Mark lost
          </ShelfPlain>
        )}
        {!unsaved && full && <ShelfPlain onClick={() => setSaying(true)}>Terms and wording…</ShelfPlain>}
        {!unsaved && quote.state === 'withCustomer' && <Revise quote={quote} job={job} />}
        {!unsaved && mayWin && quote.state === 'withCustomer' && revised === undefined && (
          <ShelfPlain onClick={() => setEarly(true)}>Buy before acceptance…</ShelfPlain>
        )}
        {!unsaved && quote.state === 'writing' && (
          <ShelfPlain disabled={upload.busy} onClick={chooseFile}>
            {upload.busy ? 'Reading…' : 'Import file'}
          </ShelfPlain>
        )}
        {mayWin && unsaved && <ShelfPlain onClick={() => void win()}>Save and mark won…</ShelfPlain>}
        {mayWin && !unsaved && full && (
          <ShelfMain onClick={() => void win()} hint="Ctrl ↵">
            Mark won
          </ShelfMain>
        )}
        {unsaved && (
          <ShelfMain disabled={saving} onClick={() => void sheet.save()} hint="Ctrl ↵">
            {saving ? 'Saving…' : 'Save'}
          </ShelfMain>
        )}
      </Shelf>
      {winning && <WinSlip quote={quote} job={job} revised={revised} onClose={() => setWinning(false)} />}
      {early && <EarlySlip quote={quote} onClose={() => setEarly(false)} />}
      {saying && <SayingSlip quote={quote} onClose={() => setSaying(false)} />}
    </div>
  );
}

/** Sends a chosen file in and leads on to its columns. */
function useUpload(quoteId: number, job: string) {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const [fault, setFault] = useState<string>();
  const send = async (file: File | undefined) => {
    if (file === undefined) return;
    if (file.size > LIMITS.file)
      return setFault(`${file.name} is over 8 MB. Split it and import the parts one after the other.`);
    setBusy(true);
    setFault(undefined);
    const of = new URLSearchParams({ quote: String(quoteId), name: file.name });
    try {
      const answer = await fetch(`/jobs/${job}/quote/file?${of}`, { method: 'POST', body: file });
      const told = (await answer.json()) as { id?: number; message?: string };
      if (told.id === undefined) setFault(`${file.name}: ${told.message ?? 'the file could not be read.'}`);
      else router.push(`/jobs/${job}/quote?file=${told.id}`);
    } catch {
      setFault('The file didn’t upload. Try again in a moment.');
    }
    setBusy(false);
  };
  return { busy, fault, send };
}
