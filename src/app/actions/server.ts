'use server';

import { importQuoteFile as readAndImport } from '@/actions/quotes/importing';
import * as sending from '@/actions/orders/sending';
import { serverAction, serverReading, serverSending } from '../server/serverActions';

export const perform = serverAction;
export const sendOrder = serverSending(sending.sendOrder);
export const chaseOrder = serverSending(sending.chaseOrder);
export const markSentByHand = serverSending(sending.markSentByHand);
export const importQuoteFile = serverReading(readAndImport);
