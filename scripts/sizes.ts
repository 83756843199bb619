/** How many times as large it is: npm run bench -- --times 4; a twentieth in a short run. */
export const TIMES = process.argv.includes('--short') ? 0.05 : Number(argument('--times') ?? 1);
if (!(TIMES > 0)) throw new Error('Say how many times as large, such as --times 4.');

function argument(name: string): string | undefined {
  const at = process.argv.indexOf(name);
  return at < 0 ? undefined : process.argv[at + 1];
}

const times = (n: number) => Math.round(n * TIMES);
/** What is long by itself, and no longer in a larger company. */
export const upTo = (n: number) => Math.min(n, times(n));
export const SIZE = {
  jobs: times(600),
  needs: times(25_000),
  orders: times(12_000),
  lines: times(40_000),
  suppliers: Math.max(20, times(120)),
  items: times(3000),
};
/** Items that no job wants, and jobs of earlier years: what is looked through when something is picked or found. */
export const BESIDE = { items: times(47_000), jobs: times(4400) };
/** Orders that are drafted and not sent. */
export const DRAFTS = upTo(200) + 20;

/** Rows of the BOM over all its levels, and lines of the one job that buys by the thousand. */
export const PLANNED = {
  ...{ levels: 10, rows: upTo(5000), lines: Math.max(upTo(2000), 600) },
  ...{ top: SIZE.items + BESIDE.items + 1, job: SIZE.jobs + BESIDE.jobs + 1 },
};
