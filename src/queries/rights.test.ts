import { previewOrder } from './orders/preview';
import { loadItemTerms } from './orders/terms';
import { may, ROLES, type Right, type Role } from '@/core/people/rights';
import type { Person } from '@/store/people';
import { TestCompany, TODAY } from '../../tests/support/company';
import { loadBom, readBomFile, workOut } from './items/boms';
import { loadCompanyForm, loadRatesPage } from './company/company';
import { loadDecisions } from './jobs/decisions';
import { countDock, listDue } from './dock/dock';
import { loadDockOrder, loadReasons } from './dock/order';
import { loadDockPaper, loadLabels, loadReturnPaper } from './dock/papers';
import { loadLotWay } from './stores/lotHistory';
import { findScanned, loadScannedOrder } from './dock/scanning';
import { loadFrame } from './frame/frame';
import { loadGatherForm, loadGatherPreview } from './buying/gather';
import { findInvoiceable, listInvoices, loadInvoice, loadInvoiceChange, loadInvoiceForm } from './invoices/invoices';
import { loadCourse } from './jobs/course';
import { loadHistory, loadRecord } from './company/history';
import { findJob, loadPostings, loadQuote, loadTab } from './jobs/job';
import { countPlanned, listJobs, loadJobForm } from './jobs/jobs';
import { listChoices, loadChoice } from './frame/choices';
import { loadBuyList } from './buying/buyList';
import { listLate } from './buying/openNeeds';
import { loadAtHand, loadBecame } from './buying/atHand';
import { listOpenNeeds, pageOfOpenNeeds } from './buying/openNeeds';
import { loadDecide } from './jobs/deciding';
import { loadCompletion } from './jobs/completion';
import { loadBudget, loadContingencyOf } from './jobs/budgets';
import { loadLadderPage, loadOwnDeputies } from './signoff/ladder';
import { listToSign, loadToSign, loadSignPage } from './signoff/toSign';
import { loadOrderedBefore } from './orders/orderedBefore';
import { listPaidParts, loadPriceCourse } from './items/priceCourse';
import { previewEnding } from './orders/ending';
import { loadFileBytes, loadFiles, loadFilesFor, loadOrderData } from './company/files';
import { loadFillUp } from './buying/fillUp';
import { loadFloorPaper } from './jobs/materialSheet';
import { loadSwitched } from './buying/switching';
import { loadWording } from './company/wording';
import { loadOrder, loadOrderForm, loadOrderPaper, loadOrderPapers } from './orders/order';
import { listOrders } from './orders/orders';
import { listMessages, loadDocument, loadMessage, loadRaw } from './orders/outbox';
import { listMySignIns, listPeople, loadPerson } from './people/people';
import { NotPermitted } from './permit';
import { loadPlanView } from './buying/plan';
import { loadAhead, loadPlanChanges } from './buying/planAhead';
import { checkQuoteFile } from './quotes/importing';
import { loadQuotePaper } from './quotes/paper';
import { loadReview, loadReviewPoints } from './orders/reviews';
import { loadSellers } from './items/sellers';
import { listCounted, listCounts, listToCount, loadCount, loadCountPaper } from './stores/counts';
import { loadMaterial } from './buying/material';
import { listToPick, loadPicking, loadPickPaper } from './stores/picking';
import { loadStock } from './stores/stock';
import { listStock, sumStock } from './stores/stores';
import { listItems, loadItem, loadItemPast, loadSold } from './items/items';
import { loadJobAsset } from './jobs/assets';
import { readCountFile } from './stores/countFile';
import { readPriceFile } from './items/priceLists';
import { loadSideBySide } from './quotes/sideBySide';
import { loadRevised } from './quotes/revision';
import { listSold, listSuppliers, loadSupplier, loadSupplierForm } from './items/suppliers';

let yard: TestCompany;
beforeAll(async () => {
  yard = await TestCompany.open();
  await yard.send(await yard.draft([{ needId: await yard.need(), buy: 50_000 as never }]));
});
afterAll(() => yard.close());

const tab = { rows: [], whole: { budget: 0, amounts: {} } } as never;

/** Every look at the file, and the right without which it is refused; a new query must be entered here. */
const LOOKS: readonly (readonly [name: string, right: Right, look: (person: Person) => Promise<unknown>])[] = [
  ['jobs', 'see jobs', (p) => listJobs(yard.db, p, {})],
  ['the form for a job', 'open jobs', (p) => loadJobForm(yard.db, p, TODAY)],
  ['a job', 'see jobs', (p) => findJob(yard.db, p, '412')],
  ['a job’s tab', 'see money', (p) => loadTab(yard.db, p, 1)],
  ['what a job holds back', 'see money', (p) => loadContingencyOf(yard.db, p, 1)],
  ['what can be decided', 'see money', (p) => loadDecide(yard.db, p, 1, tab, '01')],
  ['how a job ends', 'see money', (p) => loadCompletion(yard.db, p, 1)],
  ['a job’s budget', 'see money', (p) => loadBudget(yard.db, p, 1)],
  ['what waits to be signed, with what it does', 'sign orders', (p) => loadToSign(yard.db, p, TODAY)],
  ['what waits to be signed', 'sign orders', (p) => listToSign(yard.db, p, TODAY)],
  ['an order to sign', 'sign orders', (p) => loadSignPage(yard.db, p, 'K26-0001', TODAY)],
  ['the ladder', 'manage people', (p) => loadLadderPage(yard.db, p, TODAY)],
  ['one’s own deputies', 'sign orders', (p) => loadOwnDeputies(yard.db, p, TODAY)],
  ['a figure’s postings', 'see money', (p) => loadPostings(yard.db, p, 1, {})],
  ['a job’s course', 'see money', (p) => loadCourse(yard.db, p, 1)],
  ['a job’s quote', 'see money', (p) => loadQuote(yard.db, p, 1)],
  ['a record of the history', 'see money', (p) => loadRecord(yard.db, p, 1)],
  ['a job’s history', 'see money', (p) => loadHistory(yard.db, p, { about: 'job', id: 1 })],
  ['what is to decide', 'see money', (p) => loadDecisions(yard.db, p, { id: 1, number: '412' }, tab, TODAY)],
  ['a buy list', 'see jobs', (p) => loadBuyList(yard.db, p, 1, TODAY)],
  ['a plan', 'see jobs', (p) => loadPlanView(yard.db, p, { id: 1, number: '412', name: '', startsOn: null }, TODAY)],
  ['what planning anew would do', 'see jobs', (p) => loadAhead(yard.db, p, 1, TODAY)],
  ['what changed further up', 'see jobs', (p) => loadPlanChanges(yard.db, p, 1, TODAY)],
  ['what is looked over', 'see jobs', (p) => loadReview(yard.db, p, 1)],
  ['what is looked over by kind', 'manage people', (p) => loadReviewPoints(yard.db, p)],
  ['who sells a part', 'see money', (p) => loadSellers(yard.db, p, 1, TODAY)],
  ['a bill of materials', 'see jobs', (p) => loadBom(yard.db, p, 1, { on: TODAY })],
  [
    'a BOM worked out',
    'see jobs',
    (p) =>
      workOut(yard.db, p, { id: 0, itemId: 1, makingDays: 0, lines: [] }, 10_000 as never, { on: TODAY, today: TODAY }),
  ],
  ['a file of BOMs', 'keep BOMs', (p) => readBomFile(yard.db, p, 1, new Uint8Array(), TODAY)],
  ['what lies in stores', 'see stores', (p) => listStock(yard.db, p)],
  ['what stores are worth', 'see stores', (p) => sumStock(yard.db, p, {})],
  ['where an item lies', 'see stores', (p) => loadStock(yard.db, p, 1)],
  ['what is to pick', 'see stores', (p) => listToPick(yard.db, p, { most: 9 })],
  ['a picking list', 'see stores', (p) => loadPicking(yard.db, p, '1')],
  ['a picking list on paper', 'see stores', (p) => loadPickPaper(yard.db, p, '1', TODAY)],
  ['counts', 'see stores', (p) => listCounts(yard.db, p)],
  ['what can be counted', 'see stores', (p) => listToCount(yard.db, p)],
  ['a count', 'see stores', (p) => loadCount(yard.db, p, 1)],
  ['a count on paper', 'see stores', (p) => loadCountPaper(yard.db, p, 1, TODAY)],
  ['counts to look over', 'see stores', (p) => listCounted(yard.db, p)],
  ['the material of a job', 'see jobs', (p) => loadMaterial(yard.db, p, [1])],
  ['a quote’s paper', 'see money', (p) => loadQuotePaper(yard.db, p, 1, TODAY)],
  ['things to pick', 'see jobs', (p) => listChoices(yard.db, p, 'item', '', TODAY)],
  ['a thing to pick', 'see jobs', (p) => loadChoice(yard.db, p, 'item', 1, TODAY)],
  ['people to pick', 'see money', (p) => listChoices(yard.db, p, 'person', '', TODAY)],
  ['what is to buy', 'draft orders', (p) => listOpenNeeds(yard.db, p, TODAY, {})],
  ['all that is to buy', 'draft orders', (p) => pageOfOpenNeeds(yard.db, p, TODAY, {}, undefined)],
  ['what is late to order', 'draft orders', (p) => listLate(yard.db, p, TODAY, 5)],
  [
    'what picks would make, told',
    'draft orders',
    (p) => loadGatherPreview(yard.db, p, TODAY, { picks: [], joins: {} }),
  ],
  ['what Gather filters by', 'draft orders', (p) => loadGatherForm(yard.db, p)],
  ['a quote file', 'import quotes', (p) => checkQuoteFile(yard.db, p, TODAY, 1)],
  ['orders', 'see orders', (p) => listOrders(yard.db, p, {}, TODAY)],
  ['an order', 'see money', (p) => loadOrder(yard.db, p, 'K26-0001', TODAY)],
  ['an order’s paper', 'see money', (p) => loadOrderPaper(yard.db, p, 'K26-0001', TODAY)],
  ['several papers', 'see money', (p) => loadOrderPapers(yard.db, p, [1], TODAY)],
  [
    'the form for an order',
    'draft orders',
    (p) => loadOrderForm(yard.db, p, { lines: [], supplierId: 1 } as never, TODAY),
  ],
  [
    'what ending a line frees',
    'see money',
    (p) => previewEnding(yard.db, p, 'K26-0001', { what: 'cancel', lineId: null }),
  ],
  ['files for an order', 'see money', (p) => loadFilesFor(yard.db, p, 'K26-0001')],
  ['files about a thing', 'see money', (p) => loadFiles(yard.db, p, 'job', 1)],
  ['an order as data', 'see money', (p) => loadOrderData(yard.db, p, 'K26-0001', 'ubl', TODAY)],
  ['what goes with an order', 'see money', (p) => loadFileBytes(yard.db, p, 'K26-0001')],
  ['the slip for the floor', 'see jobs', (p) => loadFloorPaper(yard.db, p, '412', TODAY)],
  ['what could ride along', 'draft orders', (p) => loadFillUp(yard.db, p, 1, [], TODAY)],
  ['what a switch does', 'draft orders', (p) => loadSwitched(yard.db, p, { needId: 1, picks: [] }, TODAY)],
  ['the words of mails', 'keep suppliers', (p) => loadWording(yard.db, p, null, TODAY)],
  ['a part at a glance', 'see stores', (p) => loadAtHand(yard.db, p, 1)],
  ['what became of a line', 'see orders', (p) => loadBecame(yard.db, p, 1)],
  ['what was ordered before', 'see money', (p) => loadOrderedBefore(yard.db, p, 'K26-0001', '')],
  ['a typed order', 'draft orders', (p) => previewOrder(yard.db, p, 'K26-0001', [], TODAY)],
  ['what a supplier was paid for', 'see money', (p) => listPaidParts(yard.db, p, 1)],
  ['how a price went', 'see money', (p) => loadPriceCourse(yard.db, p, 1, 1)],
  ['a supplier’s terms for parts', 'see money', (p) => loadItemTerms(yard.db, p, 1, [], TODAY)],
  ['deliveries due', 'see dock', (p) => listDue(yard.db, p, TODAY)],
  ['how many deliveries are due', 'see dock', (p) => countDock(yard.db, p, TODAY)],
  ['a paper of a delivery', 'see dock', (p) => loadDockPaper(yard.db, p, 1)],
  ['labels of a receipt', 'see dock', (p) => loadLabels(yard.db, p, 1)],
  ['a return note', 'see dock', (p) => loadReturnPaper(yard.db, p, 1, TODAY)],
  ['the way of a number', 'see stores', (p) => loadLotWay(yard.db, p, 1)],
  ['what was scanned', 'receive', (p) => findScanned(yard.db, p, ['TU-1'])],
  ['an order that is scanned', 'receive', (p) => loadScannedOrder(yard.db, p, 'K26-0001')],
  ['reasons of the dock', 'see dock', (p) => loadReasons(yard.db, p)],
  ['an order at the dock', 'see dock', (p) => loadDockOrder(yard.db, p, 'K26-0001')],
  ['invoices', 'see invoices', (p) => listInvoices(yard.db, p, {})],
  ['an invoice', 'see invoices', (p) => loadInvoice(yard.db, p, 1)],
  ['the form for an invoice', 'enter invoices', (p) => loadInvoiceForm(yard.db, p, 'K26-0001')],
  ['the form for an invoice that changes', 'enter invoices', (p) => loadInvoiceChange(yard.db, p, 1)],
  ['orders to invoice', 'enter invoices', (p) => findInvoiceable(yard.db, p, '')],
  ['suppliers', 'see money', (p) => listSuppliers(yard.db, p)],
  ['a supplier', 'see money', (p) => loadSupplier(yard.db, p, 1, TODAY)],
  ['the form for a supplier', 'see money', (p) => loadSupplierForm(yard.db, p)],
  ['items', 'see money', (p) => listItems(yard.db, p, TODAY)],
  ['how a part is sold', 'keep suppliers', (p) => loadSold(yard.db, p, 1, 1)],
  ['what a supplier sells', 'see money', (p) => listSold(yard.db, p, 1, TODAY)],
  ['a quote side by side', 'see money', (p) => loadSideBySide(yard.db, p, 1, TODAY)],
  ['what a revision changes', 'see money', (p) => loadRevised(yard.db, p, 1)],
  ['what a job works on', 'see jobs', (p) => loadJobAsset(yard.db, p, 1)],
  ['a file of counts', 'keep stores', (p) => readCountFile(yard.db, p, new Uint8Array())],
  ['how many jobs are planned', 'see jobs', (p) => countPlanned(yard.db, p)],
  ['a price list', 'keep suppliers', (p) => readPriceFile(yard.db, p, 1, new Uint8Array(), TODAY)],
  ['an item', 'see money', (p) => loadItem(yard.db, p, 1, TODAY)],
  ['what an item cost before', 'see money', (p) => loadItemPast(yard.db, p, 1)],
  ['messages', 'see money', (p) => listMessages(yard.db, p)],
  ['a message', 'see money', (p) => loadMessage(yard.db, p, 1)],
  ['a message as it went', 'see money', (p) => loadRaw(yard.db, p, 1)],
  ['a document', 'see money', (p) => loadDocument(yard.db, p, 1)],
  ['how the company works', 'manage people', (p) => loadCompanyForm(yard.db, p, TODAY)],
  ['exchange rates', 'see money', (p) => loadRatesPage(yard.db, p, TODAY)],
  ['a person', 'manage people', (p) => loadPerson(yard.db, p, 1, '2026-06-01T10:00:00.000Z')],
  ['one’s sign-ins', 'see jobs', (p) => listMySignIns(yard.db, p, '2026-06-01T10:00:00.000Z')],
  ['people', 'manage people', (p) => listPeople(yard.db, p)],
];

const as = (role: Role): Person => ({ id: 1, name: role, email: '', theme: 'day', roles: [role] });

describe('every look at the file', () => {
  it.each(LOOKS)('%s needs the right to %s', async (_, right, look) => {
    for (const role of ROLES) {
      const seen = await look(as(role)).then(
        () => 'seen',
        (error: unknown) => (error instanceof NotPermitted ? 'kept' : `failed: ${String(error)}`),
      );
      expect({ role, seen }).toEqual({ role, seen: may(as(role), right) ? 'seen' : 'kept' });
    }
  });
});

describe('money', () => {
  it('is in none of what a storekeeper sees of stores, plans and BOMs', async () => {
    const [item] = yard.ids.items;
    const pile = { itemId: item, placeId: 1, jobId: null, kind: 'counted', quantity: 50_000, value: 77_700 } as const;
    await yard.db('stockMove').insert({ ...pile, personId: 1, day: TODAY, at: TODAY } as never);
    const joss = as('storekeeper');
    const sheet = { id: 1, number: 'C26-0001', placeId: 1, binId: null, blind: 0, state: 'counted' } as const;
    await yard.db('stockCount').insert({ ...sheet, begunBy: 1, begunOn: TODAY } as never);
    const line = { countId: 1, itemId: item, begun: 50_000, counted: 40_000, book: 50_000 };
    await yard.db('stockCountLine').insert(line as never);
    const seen = JSON.stringify([
      await loadCount(yard.db, joss, 1),
      await listCounts(yard.db, joss),
      await loadPicking(yard.db, joss, (await yard.db('job').where({ id: 1 }).first('number'))?.number ?? ''),
      await listToPick(yard.db, joss, { most: 9 }),
      await loadMaterial(yard.db, joss, [1]),
      await listStock(yard.db, joss),
      await sumStock(yard.db, joss, {}),
      await loadStock(yard.db, joss, item),
      await loadAhead(yard.db, joss, 1, TODAY),
      await loadBuyList(yard.db, joss, 1, TODAY),
    ]);
    expect(seen).not.toContain('77700');
    // What is missed by the sheet would be worth as much.
    expect(seen).not.toContain('15540');
    expect(seen).not.toMatch(/"(price|value|worth|planned|buying)":[^n]/);
  });
});

describe('what stands around every place', () => {
  it('counts for each role only what that role settles', async () => {
    const countsOf = async (role: Role) => (await loadFrame(yard.db, as(role), TODAY)).counts;
    expect(await countsOf('buyer')).toEqual({ gather: 1, dock: 0, invoices: 0 });
    expect(await countsOf('storekeeper')).toEqual({ gather: 0, dock: 0, invoices: 0 });
  });

  it('shows levels on the rail only to who may see money', async () => {
    await yard.db('openJob').insert({ personId: 1, jobId: yard.ids.jobs[0], place: 1 });
    expect((await loadFrame(yard.db, as('buyer'), TODAY)).rail[0]?.level).toMatchObject({ amounts: { onOrder: 6500 } });
    expect((await loadFrame(yard.db, as('field'), TODAY)).rail[0]?.level).toBeNull();
  });
});
