// Where a thread begins. What it runs was built with the application; in development it is TypeScript as it stands.
import { pathToFileURL } from 'node:url';
import piscina from 'piscina';

const { code } = piscina.workerData;
if (code.endsWith('.ts')) (await import('tsx/esm/api')).register();
const tasks = await import(pathToFileURL(code));

/** An error as plain values: what is copied between threads keeps neither its class nor its code. */
const plain = ({ name, code, message, stack }) => ({ name, code, message, stack });

export default async ({ task, input }) => {
  try {
    return { value: await tasks[task](input) };
  } catch (error) {
    return { fault: plain(error instanceof Object ? error : new Error(String(error))) };
  }
};
