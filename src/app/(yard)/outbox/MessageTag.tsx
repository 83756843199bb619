import { MESSAGE_STATE_NAMES } from '@/core/orders/states';
import type { MessageState } from '@/store/tables';

const TONES: Readonly<Record<MessageState, string>> = {
  taken: 'tag-good',
  failed: 'tag-stop',
  unknown: 'tag-stop',
  sending: '',
};

export const MessageTag = ({ state }: { state: MessageState }) => (
  <span className={`tag ${TONES[state]}`}>{MESSAGE_STATE_NAMES[state]}</span>
);
