/** What a job comes to is kept with it, and what the Desk and Gather show first is found by index, however much there is. */
export const name = '016-sums';

const counts = (row: string, sign: string) => `
  to_buy = to_buy ${sign} (${row}.open > 0), missing = missing ${sign} (${row}.missing > 0),
  goods = goods ${sign} (${row}.kind = 'goods' AND ${row}.quantity > 0)`;

export const up = `
-- By job: its budget, what stands on its tab by stage, and how many of its lines are to buy, are missing, and are goods.
CREATE TABLE job_sum (
  job_id INTEGER PRIMARY KEY REFERENCES job(id),
  budget INTEGER NOT NULL DEFAULT 0, planned INTEGER NOT NULL DEFAULT 0, drafted INTEGER NOT NULL DEFAULT 0,
  on_order INTEGER NOT NULL DEFAULT 0, received INTEGER NOT NULL DEFAULT 0, actual INTEGER NOT NULL DEFAULT 0,
  to_buy INTEGER NOT NULL DEFAULT 0, missing INTEGER NOT NULL DEFAULT 0, goods INTEGER NOT NULL DEFAULT 0
) STRICT;
INSERT INTO job_sum
SELECT j.id, coalesce((SELECT sum(amount) FROM budget_entry b WHERE b.job_id = j.id), 0),
  coalesce(t.planned, 0), coalesce(t.drafted, 0), coalesce(t.on_order, 0), coalesce(t.received, 0), coalesce(t.actual, 0),
  coalesce(n.to_buy, 0), coalesce(n.missing, 0), coalesce(n.goods, 0)
FROM job j
LEFT JOIN (SELECT job_id, sum(iif(stage = 'planned', amount, 0)) AS planned, sum(iif(stage = 'drafted', amount, 0)) AS drafted,
    sum(iif(stage = 'onOrder', amount, 0)) AS on_order, sum(iif(stage = 'received', amount, 0)) AS received,
    sum(iif(stage = 'actual', amount, 0)) AS actual FROM tab_sum GROUP BY job_id) t ON t.job_id = j.id
LEFT JOIN (SELECT job_id, sum(open > 0) AS to_buy, sum(missing > 0) AS missing, sum(kind = 'goods' AND quantity > 0) AS goods
    FROM need GROUP BY job_id) n ON n.job_id = j.id;

CREATE TRIGGER job_begins_its_sum AFTER INSERT ON job BEGIN
  INSERT INTO job_sum(job_id) VALUES (NEW.id);
END;
CREATE TRIGGER budget_is_summed_by_job AFTER INSERT ON budget_entry BEGIN
  UPDATE job_sum SET budget = budget + NEW.amount WHERE job_id = NEW.job_id;
END;
CREATE TRIGGER posting_is_summed_by_job AFTER INSERT ON posting WHEN NEW.job_id IS NOT NULL BEGIN
  UPDATE job_sum SET planned = planned + iif(NEW.stage = 'planned', NEW.amount, 0),
    drafted = drafted + iif(NEW.stage = 'drafted', NEW.amount, 0), on_order = on_order + iif(NEW.stage = 'onOrder', NEW.amount, 0),
    received = received + iif(NEW.stage = 'received', NEW.amount, 0), actual = actual + iif(NEW.stage = 'actual', NEW.amount, 0)
  WHERE job_id = NEW.job_id;
END;
CREATE TRIGGER need_is_counted AFTER INSERT ON need BEGIN
  UPDATE job_sum SET ${counts('NEW', '+')} WHERE job_id = NEW.job_id;
END;
CREATE TRIGGER need_is_counted_no_more AFTER DELETE ON need BEGIN
  UPDATE job_sum SET ${counts('OLD', '-')} WHERE job_id = OLD.job_id;
END;
CREATE TRIGGER need_is_counted_anew AFTER UPDATE OF open, missing, quantity, kind, job_id ON need
WHEN NEW.job_id <> OLD.job_id OR (NEW.open > 0) <> (OLD.open > 0) OR (NEW.missing > 0) <> (OLD.missing > 0)
  OR (NEW.kind = 'goods' AND NEW.quantity > 0) <> (OLD.kind = 'goods' AND OLD.quantity > 0) BEGIN
  UPDATE job_sum SET ${counts('OLD', '-')} WHERE job_id = OLD.job_id;
  UPDATE job_sum SET ${counts('NEW', '+')} WHERE job_id = NEW.job_id;
END;

-- A cancelled order is called that.
UPDATE purchase_order SET state = 'cancelled' WHERE state = 'calledOff';

DROP INDEX purchase_order_unconfirmed;
CREATE INDEX purchase_order_unconfirmed ON purchase_order(sent_on, id, missed_on, due_here_on, due_away_on) WHERE state = 'sent';
CREATE INDEX invoice_waiting ON invoice(state DESC, id) WHERE state IN ('entered', 'held');
CREATE INDEX item_stocked ON item(id) WHERE stocked = 1;
CREATE INDEX need_open_by_supplier_and_day ON need(coalesce(supplier_id, 9007199254740991), coalesce(needed_on, ''), id) WHERE open > 0;
CREATE INDEX need_open_by_last_day ON need(coalesce(needed_on, '9999'), id) WHERE open > 0;
CREATE INDEX need_open_by_last_order_day ON need(coalesce(order_by, '9999'), id) WHERE open > 0;
`;
