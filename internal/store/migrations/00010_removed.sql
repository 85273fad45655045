-- +goose Up
-- A session that was taken out of the plan; bringing it back is another save.
ALTER TABLE training_session ADD COLUMN removed boolean NOT NULL DEFAULT false;
ALTER TABLE session_version ADD COLUMN removed boolean NOT NULL DEFAULT false;

-- +goose Down
ALTER TABLE session_version DROP COLUMN removed;
ALTER TABLE training_session DROP COLUMN removed;
