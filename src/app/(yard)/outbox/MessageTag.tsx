import type { MessageState } from '@/store/tables';

const WORDS: Readonly<Record<MessageState, readonly [string, string]>> = {
  taken: ['taken by the mail server', 'tag-good'],
  failed: ['failed', 'tag-stop'],
  unknown: ['not known', 'tag-stop'],
  sending: ['being sent', ''],
};

export const MessageTag = ({ state }: { state: MessageState }) => (
  <span className={`tag ${WORDS[state][1]}`}>{WORDS[state][0]}</span>
);
