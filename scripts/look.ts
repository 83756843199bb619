import { Browser, DESK, PHONE } from '../tests/browser/driver';
const [who, ...rest] = process.argv.slice(2);
const b = await Browser.open('http://127.0.0.1:4180', rest.includes('phone') ? PHONE : DESK);
try { await b.stepInAs(who!);
for (const p of rest.filter(r=>r!=='phone')) { const [path, out] = p.split('@'); await b.go(path!); await new Promise(r=>setTimeout(r,900)); await b.shot(`/tmp/${out}.png`); const e = await b.consoleErrors(); if (e.length) console.log(path, e); }
} finally { await b.close(); }
