-- +goose Up
-- A set keeps the row it was planned in, what it was made of, and why its series is
-- not fed by it.
ALTER TABLE set_entry ADD COLUMN row_id uuid;
ALTER TABLE set_entry ADD COLUMN parts jsonb NOT NULL DEFAULT '[]';
ALTER TABLE set_entry ADD COLUMN hollow text NOT NULL DEFAULT '';

-- What stands of a log: neither taken back nor put right since. Everything that reads
-- a log reads this.
CREATE VIEW standing_set WITH (security_invoker = true) AS
SELECT e.* FROM set_entry e
WHERE NOT e.withdrawn AND NOT EXISTS (SELECT 1 FROM set_entry r WHERE r.replaces = e.entry_id);

-- +goose Down
DROP VIEW standing_set;
ALTER TABLE set_entry DROP COLUMN hollow;
ALTER TABLE set_entry DROP COLUMN parts;
ALTER TABLE set_entry DROP COLUMN row_id;
