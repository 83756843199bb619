import type { z } from 'zod';
import type { Action } from '@/actions/action';
import * as company from '@/actions/company';
import * as invoices from '@/actions/invoices';
import * as jobs from '@/actions/jobs';
import * as needs from '@/actions/needs';
import * as orders from '@/actions/orders';
import * as people from '@/actions/people';
import * as quotes from '@/actions/quotes';
import * as receiving from '@/actions/receiving';
import * as suppliers from '@/actions/suppliers';
import type { Right } from '@/core/people/rights';

type AnyAction = Action<z.ZodType, unknown>;

const isAction = (x: unknown): x is AnyAction => typeof x === 'function' && 'input' in x;

/** Everything that people do through the frame of actions. */
export const ACTIONS: readonly AnyAction[] = [
  jobs,
  quotes,
  needs,
  orders,
  receiving,
  invoices,
  suppliers,
  people,
  company,
]
  .flatMap((m) => Object.values(m) as unknown[])
  .filter(isAction);

/** Which right each action asks for; a new action must be entered here. */
export const ASKS: Readonly<Record<string, Right>> = {
  openJob: 'open jobs',
  openOnRail: 'see jobs',
  closeOnRail: 'see jobs',
  moveOnRail: 'see jobs',
  keepQuoteFile: 'import quotes',
  importQuote: 'import quotes',
  moveQuote: 'win quotes',
  winQuote: 'win quotes',
  addNeed: 'change buy lists',
  changeNeed: 'change buy lists',
  chooseSupplier: 'change buy lists',
  draftOrders: 'draft orders',
  changeOrder: 'draft orders',
  holdOrder: 'draft orders',
  callOff: 'draft orders',
  closeShort: 'send orders',
  endBills: 'match invoices',
  receive: 'receive',
  takeBack: 'receive',
  enterInvoice: 'enter invoices',
  changeInvoice: 'enter invoices',
  takeOutInvoice: 'enter invoices',
  matchInvoice: 'match invoices',
  saveSupplier: 'keep suppliers',
  saveItem: 'keep suppliers',
  saveRate: 'keep suppliers',
  removeRate: 'keep suppliers',
  saveCompany: 'manage people',
  addDayOff: 'manage people',
  removeDayOff: 'manage people',
  takeHolidays: 'manage people',
  addPerson: 'manage people',
  chooseTheme: 'see jobs',
};
