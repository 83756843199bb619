// Where a thread begins. What it runs was built with the application; in development it is TypeScript as it stands.
import { pathToFileURL } from 'node:url';
import piscina from 'piscina';

const { code } = piscina.workerData;
if (code.endsWith('.ts')) (await import('tsx/esm/api')).register();
const tasks = await import(pathToFileURL(code));

export default ({ task, input }) => tasks[task](input);
