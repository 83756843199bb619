'use server';

import { importQuoteFile as readAndImport } from '@/actions/quotes/importing';
import * as sending from '@/actions/orders/sending';
import { serverAction, serverReading, serverSending } from '../server/serverActions';

export const perform = serverAction;
export const sendOrder = serverSending('sendOrder', sending.sendOrder);
export const chaseOrder = serverSending('chaseOrder', sending.chaseOrder);
export const markSentByHand = serverSending('markSentByHand', sending.markSentByHand);
export const importQuoteFile = serverReading('importQuoteFile', readAndImport);
