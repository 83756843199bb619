import { mkdirSync, writeFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { SMTPServer } from 'smtp-server';

/** Mailboxes under this name are refused, so that a failed sending can be tried out. */
export const NO_SUCH_MAILBOX = 'nobody';

export type MailServer = { readonly url: string; readonly close: () => Promise<void> };

/**
 * Starts a mail server on this machine that takes every message and keeps it as a file, but forwards none.
 *
 * @param folder - where each message is written as it came, one .eml file each
 * @param port - 0 for any free one
 */
export function startMailServer(folder: string, port: number): Promise<MailServer> {
  mkdirSync(folder, { recursive: true });
  let count = 0;
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS', 'AUTH'],
    size: 30 * 1024 * 1024,
    onRcptTo: ({ address }, _session, answer) => {
      if (address.startsWith(`${NO_SUCH_MAILBOX}@`))
        answer(Object.assign(new Error(`No mailbox ${address} here`), { responseCode: 550 }));
      else answer();
    },
    onData: (stream, _session, answer) => {
      const parts: Buffer[] = [];
      stream.on('data', (part: Buffer) => parts.push(part));
      stream.on('end', () => {
        count += 1;
        const name = `${Date.now()}-${count}.eml`;
        writeFileSync(join(folder, name), Buffer.concat(parts));
        answer(null, `Kept as ${name}`);
      });
    },
  });
  return new Promise((resolve, reject) => {
    server.on('error', reject);
    server.listen(port, '127.0.0.1', () => {
      const { port: taken } = server.server.address() as AddressInfo;
      resolve({ url: `smtp://127.0.0.1:${taken}`, close: () => new Promise((closed) => server.close(() => closed())) });
    });
  });
}
