// Where a thread begins: TypeScript as it stands, from the entry it was made for.
import { register } from 'tsx/esm/api';
import piscina from 'piscina';

register();
const tasks = await import(`./${piscina.workerData.entry}.ts`);

export default ({ task, input }) => tasks[task](input);
