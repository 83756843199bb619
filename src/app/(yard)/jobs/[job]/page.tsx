import { isOpenQuote } from '@/core/quotes/winning';
import Link from '@/ui/kit/Link';
import { STAGES } from '@/core/tab/stages';
import { loadDecide } from '@/queries/jobs/deciding';
import { loadDecisions } from '@/queries/jobs/decisions';
import { loadContingencyOf } from '@/queries/jobs/budgets';
import { loadCourse } from '@/queries/jobs/course';
import { loadPostings, type Figure } from '@/queries/jobs/job';
import { NotPermitted } from '@/queries/permit';
import { Empty } from '@/ui/kit/Sheet';
import { Course } from './Course';
import { DecideSlip } from './DecideSlip';
import { FigureSlip } from './FigureSlip';
import { Contingency } from './Contingency';
import { jobPage } from './jobPage';
import { JobShelf } from './JobShelf';
import { TabTable } from './TabTable';

const WORD = { over: 'text-brick', care: 'text-amber', good: 'text-enamel' } as const;

export default jobPage(async ({ db, person, today, query, job, on, tab }) => {
  if (tab === undefined) throw new NotPermitted('see money');
  const [code, stage] = (query.figure ?? '').split('.');
  const row = tab.rows.find((r) => r.code.code === code);
  const chosen = STAGES.find((s) => s === stage);
  const figure: Figure | undefined =
    query.figure === undefined ? undefined : { costCodeId: row?.code.id, stage: chosen, on };
  const decisions = await loadDecisions(db, person, job, tab, today, on);
  const decide =
    query.decide === undefined || on !== undefined
      ? undefined
      : await loadDecide(db, person, job.id, tab, query.decide);
  if (tab.rows.length === 0) {
    return (
      <Empty title={on === undefined ? 'The tab is empty' : 'The tab was empty on that date'}>
        {on === undefined && job.quote && isOpenQuote(job.quote) ? (
          <>
            The budget opens when quote {job.quote.number} is won.{' '}
            <Link className="step" href={`/jobs/${job.number}/quote`}>
              {job.quote.lines === 0 ? 'Import the quote' : 'Go to quote'}
            </Link>
          </>
        ) : (
          <Link className="step" href={`/jobs/${job.number}`}>
            Show today
          </Link>
        )}
      </Empty>
    );
  }
  return (
    <>
      <TabTable tab={tab} number={job.number} on={on} />
      <Contingency number={job.number} {...await loadContingencyOf(db, person, job.id, on)} />
      {decisions.length > 0 && (
        <section aria-label="Needs a decision" className="mt-5">
          <h2 className="border-b border-line pb-1 text-[16px]">
            {on === undefined ? 'Needs a decision' : 'Needed a decision'}
          </h2>
          <ul>
            {decisions.map((d) => (
              <li key={d.text} className="border-b border-line-2">
                <Link href={d.href} scroll={false} className="flex items-baseline gap-2 py-1.5 hover:bg-glaze-2">
                  <b className={WORD[d.weight]}>{d.word}</b>
                  <span className="min-w-0 flex-1">{d.text}</span>
                  <span className="step">{d.step}</span>
                </Link>
              </li>
            ))}
          </ul>
        </section>
      )}
      <JobShelf
        person={person}
        job={job}
        on={on}
        fact={decisions.length === 0 ? 'No decisions needed' : `${decisions.length} decisions`}
      />
      <Course view={await loadCourse(db, person, job.id, on)} />
      {decide !== undefined && (
        <DecideSlip
          job={{ id: job.id, number: job.number }}
          view={decide}
          budgets={tab.rows.map((r) => [r.code.id, r.budget])}
        />
      )}
      {figure !== undefined && (
        <FigureSlip
          {...await loadPostings(db, person, job.id, figure)}
          title={[row ? `${row.code.code} ${row.code.name}` : 'Job total', chosen].filter(Boolean) as string[]}
          back={`/jobs/${job.number}${on ? `?on=${on}` : ''}`}
        />
      )}
    </>
  );
});
