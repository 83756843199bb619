import { spawn } from 'node:child_process';
import { existsSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { asDay } from '@/core/calendar/workdays';
import { DEMO_PASSWORD } from '@/demo/password';
import { deliver } from '@/formats/mail/deliver';
import { program } from '@/server/programs';
import { startMailServer } from '@/standins/mailServer';
import { open } from '@/store/open';
import { WrongAge } from '@/store/migrate';

// What is written here, the company's file and its mail, is for this user alone.
process.umask(0o077);

const [mode = 'company', ...flags] = process.argv.slice(2);
const host = process.env.KETTLE_HOST ?? '127.0.0.1';
const port = process.env.PORT ?? '4180';

/** Makes the sample company's file unless it is there; its orders are really mailed to the stand-in. */
async function makeDemo(file: string, smtp: string): Promise<void> {
  if (flags.includes('--fresh')) for (const end of ['', '-wal', '-shm']) rmSync(file + end, { force: true });
  if (existsSync(file)) return;
  console.log('Making the sample company…');
  const { seedDemo } = await import('@/demo/seed');
  const { db } = await open(file);
  const today =
    asDay(process.env.KETTLE_TODAY ?? '') ??
    (new Date().toLocaleDateString('sv-SE') as NonNullable<ReturnType<typeof asDay>>);
  await seedDemo(
    db,
    today,
    (message) => deliver(smtp, message),
    (words) => console.log(`  ${words}`),
  );
  await db.destroy();
}

/** Opens the file once before it is served, so that one of another age is told of in plain words. */
async function check(file: string): Promise<void> {
  try {
    await (await open(file)).db.destroy();
  } catch (error) {
    if (!(error instanceof WrongAge)) throw error;
    console.error(`\n${error.message}\n`);
    process.exit(1);
  }
}

function serve(env: Record<string, string>): void {
  const server = spawn(process.execPath, [program('main')], {
    stdio: 'inherit',
    env: { ...process.env, NODE_ENV: 'production', NEXT_TELEMETRY_DISABLED: '1', ...env },
  });
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => server.kill(signal));
  server.on('exit', (code) => process.exit(code ?? 0));
}

if (mode === 'seed') {
  const mail = await startMailServer(process.env.KETTLE_MAIL_FOLDER ?? join('data', 'demo-mail'), 0);
  await makeDemo(process.env.KETTLE_FILE ?? join('data', 'demo.sqlite'), mail.url);
  await mail.close();
} else if (mode === 'demo') {
  const file = process.env.KETTLE_FILE ?? join('data', 'demo.sqlite');
  const mail = await startMailServer(
    process.env.KETTLE_MAIL_FOLDER ?? join('data', 'demo-mail'),
    Number(process.env.KETTLE_MAIL_PORT ?? 0),
  );
  await makeDemo(file, mail.url);
  await check(file);
  console.log(
    `\nKettle Tab with the sample company: http://${host}:${port}\nSign in as mina@wrackline.example (buyer), or anybody else on the sign-in page; the password is “${DEMO_PASSWORD}”.\nStart over with: npm run demo -- --fresh\n`,
  );
  serve({ KETTLE_FILE: file, KETTLE_SMTP: mail.url, KETTLE_DEMO: '1' });
} else {
  await check(process.env.KETTLE_FILE ?? join('data', 'kettle.sqlite'));
  console.log(`\nKettle Tab: http://${host}:${port}\n`);
  serve({});
}
