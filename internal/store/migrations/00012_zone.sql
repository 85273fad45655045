-- +goose Up
-- A studio has a time zone: today is the studio's.
ALTER TABLE studio ADD COLUMN zone text NOT NULL DEFAULT 'UTC';

-- +goose Down
ALTER TABLE studio DROP COLUMN zone;
