import { ACTIONS as BY_NAME } from '@/actions/all';
import type { Right } from '@/core/people/rights';

/** Everything that people do through the frame of actions. */
export const ACTIONS = [...BY_NAME.values()];

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
  beginSending: 'send orders',
  writeMessage: 'send orders',
  recordAnswer: 'send orders',
  markSentByHand: 'send orders',
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
