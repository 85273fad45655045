-- +goose Up
-- What was seen while a set ran, and whether it ended because form went.
ALTER TABLE set_entry ADD COLUMN faults text[] NOT NULL DEFAULT '{}';
ALTER TABLE set_entry ADD COLUMN technical boolean NOT NULL DEFAULT false;

-- +goose Down
ALTER TABLE set_entry DROP COLUMN faults, DROP COLUMN technical;
