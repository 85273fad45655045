-- +goose Up
-- Whose reading of the rules a client's numbers follow.
ALTER TABLE client ADD COLUMN stance text NOT NULL DEFAULT 'balanced';

-- +goose Down
ALTER TABLE client DROP COLUMN stance;
