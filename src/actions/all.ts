import type { Action } from './action';
import * as assets from './assets';
import * as bins from './bins';
import * as boms from './boms';
import * as budgets from './budgets';
import * as charging from './charging';
import * as chasing from './chasing';
import * as closing from './closing';
import * as codes from './codes';
import * as company from './company';
import * as confirming from './confirming';
import * as counting from './counting';
import * as countSheets from './countSheets';
import * as ending from './ending';
import * as files from './files';
import * as invoices from './invoices';
import * as inspecting from './inspecting';
import * as issuing from './issuing';
import * as items from './items';
import * as jobs from './jobs';
import * as ladder from './ladder';
import * as mailing from './mailing';
import * as marking from './marking';
import * as mending from './mending';
import * as moving from './moving';
import * as needs from './needs';
import * as notices from './notices';
import * as orders from './orders';
import * as papers from './papers';
import * as people from './people';
import * as places from './places';
import * as planning from './planning';
import * as quoteFiles from './quoteFiles';
import * as quotes from './quotes';
import * as reasons from './reasons';
import * as receiving from './receiving';
import * as repeating from './repeating';
import * as reserving from './reserving';
import * as reviews from './reviews';
import * as revising from './revising';
import * as sendingBack from './sendingBack';
import * as sending from './sending';
import * as sharing from './sharing';
import * as signing from './signing';
import * as signOff from './signOff';
import * as stores from './stores';
import * as suppliers from './suppliers';
import * as takingBack from './takingBack';
import * as tallying from './tallying';
import * as using from './using';
import * as winning from './winning';
import * as wording from './wording';

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
