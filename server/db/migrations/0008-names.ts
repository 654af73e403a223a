/**
 * One word for one thing: clocks that time a coat are timers, what a shop keeps is its inventory, pins are revisions, a climb is a step
 * test, the looks of a coat an inspection, the hands rate a labour rate. What was written stays; its keys are called as they are now.
 */
export const name = '0008-names';

export const sql = `
ALTER TABLE clocks RENAME TO timers;
ALTER INDEX clocks_running RENAME TO timers_running;
ALTER TABLE climb_steps RENAME TO test_steps;
ALTER INDEX climb_steps_ticket RENAME TO test_steps_ticket;
ALTER TABLE store_items RENAME TO inventory_items;
ALTER INDEX store_items_kind RENAME TO inventory_items_kind;
ALTER TABLE store_revisions RENAME TO inventory_revisions;
ALTER TABLE coupons RENAME COLUMN pins TO revisions;
ALTER TABLE recipes RENAME COLUMN pins TO revisions;
ALTER TABLE runs RENAME COLUMN pins TO revisions;
ALTER TABLE test_steps RENAME COLUMN pins TO revisions;

ALTER TABLE inventory_revisions DISABLE TRIGGER append_only;
UPDATE inventory_revisions SET body = (body - 'bandLowUm' - 'bandHighUm')
  || jsonb_build_object('dryFilmMinUm', body -> 'bandLowUm', 'dryFilmMaxUm', body -> 'bandHighUm')
  WHERE body ? 'bandLowUm';
ALTER TABLE inventory_revisions ENABLE TRIGGER append_only;

UPDATE workshop SET body = (body - 'handsMinorPerMinute')
  || jsonb_build_object('labourMinorPerMinute', body -> 'handsMinorPerMinute')
  WHERE body ? 'handsMinorPerMinute';

ALTER TABLE coat_readings DISABLE TRIGGER append_only;
ALTER TABLE coat_readings DROP CONSTRAINT coat_readings_kind_check;
UPDATE coat_readings SET kind = 'inspection' WHERE kind = 'looks';
UPDATE coat_readings SET film = jsonb_set(film, '{formula}', '"judgeInspection"') WHERE film ->> 'formula' = 'judgeLooks';
ALTER TABLE coat_readings ADD CONSTRAINT coat_readings_kind_check CHECK (kind IN ('comb', 'inspection'));
ALTER TABLE coat_readings ENABLE TRIGGER append_only;

ALTER TABLE coupon_pictures DISABLE TRIGGER append_only;
UPDATE coupon_pictures SET entries = (entries - 'missMm')
  || jsonb_build_object('reprojectionErrorMm', entries -> 'missMm')
  WHERE entries ? 'missMm';
ALTER TABLE coupon_pictures ENABLE TRIGGER append_only;

ALTER TABLE recipes DISABLE TRIGGER append_only;
UPDATE recipes SET kind = 'step test' WHERE kind = 'climbed';
ALTER TABLE recipes ENABLE TRIGGER append_only;

UPDATE creations SET resource = CASE resource
    WHEN 'clock' THEN 'timer' WHEN 'store' THEN 'inventory item' WHEN 'climb step' THEN 'test step'
    WHEN 'practice' THEN 'stated setting' ELSE resource END
  WHERE resource IN ('clock', 'store', 'climb step', 'practice');
`;
