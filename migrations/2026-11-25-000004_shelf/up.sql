-- What a variant is told apart by stays when the shelf is put in another order.
ALTER TABLE variants ADD COLUMN mark integer;
UPDATE variants SET mark = numbered.mark
FROM (SELECT id, row_number() OVER (PARTITION BY build_id ORDER BY position, id) - 1 AS mark FROM variants) AS numbered
WHERE variants.id = numbered.id;
ALTER TABLE variants ALTER COLUMN mark SET NOT NULL;
