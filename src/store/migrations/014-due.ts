/** When goods of an order are to come, kept with it, so that no page looks through its lines for that. */
export const name = '014-due';

export const up = `
-- The first day on which goods of an order at its supplier are to come to a place of ours, and elsewhere; 9999 where no
-- day is said, nothing where none are to come. And the first day on which a need wanted what is promised too late for it.
ALTER TABLE purchase_order ADD COLUMN due_here_on TEXT;
ALTER TABLE purchase_order ADD COLUMN due_away_on TEXT;
ALTER TABLE purchase_order ADD COLUMN missed_on TEXT;
DROP INDEX purchase_order_awaited;
CREATE INDEX purchase_order_due_here ON purchase_order(due_here_on, id) WHERE due_here_on IS NOT NULL;
CREATE INDEX purchase_order_due_away ON purchase_order(due_away_on, id) WHERE due_away_on IS NOT NULL;
CREATE INDEX purchase_order_missed ON purchase_order(missed_on, id) WHERE missed_on IS NOT NULL;
CREATE INDEX purchase_order_unconfirmed ON purchase_order(sent_on, id) WHERE state = 'sent';
CREATE INDEX code_sum_most_over ON code_sum(budget - forecast, job_id, cost_code_id) WHERE forecast > budget;

-- Orders of which something moved that those days rest on, until they are worked out again at the end of the change.
CREATE TABLE order_moved (order_id INTEGER PRIMARY KEY) STRICT;
CREATE TRIGGER order_moved_order AFTER UPDATE OF state, wanted_on, place_id ON purchase_order BEGIN
  INSERT OR IGNORE INTO order_moved VALUES (NEW.id);
END;
CREATE TRIGGER order_moved_new_line AFTER INSERT ON order_line BEGIN
  INSERT OR IGNORE INTO order_moved VALUES (NEW.order_id);
END;
CREATE TRIGGER order_moved_no_line AFTER DELETE ON order_line BEGIN
  INSERT OR IGNORE INTO order_moved VALUES (OLD.order_id);
END;
CREATE TRIGGER order_moved_line AFTER UPDATE OF kind, quantity, received, held, given_up, billed, closed_short, bills_ended, wanted_on, promised_on, place_id ON order_line BEGIN
  INSERT OR IGNORE INTO order_moved VALUES (NEW.order_id);
END;
CREATE TRIGGER order_moved_new_split AFTER INSERT ON split BEGIN
  INSERT OR IGNORE INTO order_moved SELECT order_id FROM order_line WHERE id = NEW.line_id;
END;
CREATE TRIGGER order_moved_no_split AFTER DELETE ON split BEGIN
  INSERT OR IGNORE INTO order_moved SELECT order_id FROM order_line WHERE id = OLD.line_id;
END;
CREATE TRIGGER order_moved_split AFTER UPDATE OF job_id, need_id ON split BEGIN
  INSERT OR IGNORE INTO order_moved SELECT order_id FROM order_line WHERE id = NEW.line_id;
END;
CREATE TRIGGER order_moved_need AFTER UPDATE OF needed_on ON need BEGIN
  INSERT OR IGNORE INTO order_moved SELECT l.order_id FROM split s JOIN order_line l ON l.id = s.line_id WHERE s.need_id = NEW.id;
END;
`;
