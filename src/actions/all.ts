import type { Action } from './action';
import * as assets from './jobs/assets';
import * as bins from './stores/bins';
import * as boms from './items/boms';
import * as budgets from './jobs/budgets';
import * as charging from './orders/charging';
import * as chasing from './orders/chasing';
import * as closing from './jobs/closing';
import * as codes from './company/codes';
import * as company from './company/company';
import * as confirming from './orders/confirming';
import * as counting from './stores/counting';
import * as countSheets from './stores/countSheets';
import * as ending from './orders/ending';
import * as files from './company/files';
import * as invoices from './invoices/invoices';
import * as inspecting from './dock/inspecting';
import * as issuing from './stores/issuing';
import * as items from './items/items';
import * as jobs from './jobs/jobs';
import * as ladder from './signoff/ladder';
import * as mailing from './orders/mailing';
import * as marking from './dock/lineMarks';
import * as mending from './buying/manyNeeds';
import * as moving from './stores/moving';
import * as needs from './buying/needs';
import * as notices from './people/notices';
import * as orders from './orders/orders';
import * as papers from './dock/papers';
import * as people from './people/people';
import * as places from './company/places';
import * as planning from './buying/planning';
import * as quoteFiles from './quotes/importing';
import * as quotes from './quotes/quotes';
import * as reasons from './company/reasons';
import * as receiving from './dock/receiving';
import * as repeating from './orders/repeating';
import * as reserving from './buying/reserving';
import * as reviews from './orders/reviews';
import * as revising from './orders/revising';
import * as sendingBack from './dock/sendingBack';
import * as sending from './orders/sending';
import * as sharing from './stores/allocating';
import * as signing from './people/signingIn';
import * as signOff from './signoff/signOff';
import * as stores from './stores/stores';
import * as suppliers from './items/suppliers';
import * as takingBack from './dock/correcting';
import * as tallying from './dock/tallying';
import * as using from './people/ownViews';
import * as winning from './quotes/winning';
import * as wording from './company/wording';

type Any = Action<never, unknown>;

const ROOMS = [
  assets,
  bins,
  boms,
  budgets,
  charging,
  chasing,
  closing,
  codes,
  company,
  confirming,
  counting,
  countSheets,
  ending,
  files,
  invoices,
  inspecting,
  issuing,
  items,
  jobs,
  ladder,
  mailing,
  marking,
  mending,
  moving,
  needs,
  notices,
  orders,
  papers,
  people,
  places,
  planning,
  quoteFiles,
  quotes,
  reasons,
  receiving,
  repeating,
  reserving,
  reviews,
  revising,
  sendingBack,
  sending,
  sharing,
  signing,
  signOff,
  stores,
  suppliers,
  takingBack,
  tallying,
  using,
  winning,
  wording,
];

const isAction = (thing: unknown): thing is Any => typeof thing === 'function' && 'input' in thing;

/** Everything that people do, by its name. */
export const ACTIONS: ReadonlyMap<string, Any> = new Map(
  ROOMS.flatMap((room) => Object.values<unknown>(room).filter(isAction)).map((a) => [a.name, a]),
);
