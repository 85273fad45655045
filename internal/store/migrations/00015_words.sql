-- +goose Up
-- A studio's own words for what is held or done, asked once and remembered; and how it
-- likes to train where a client says nothing of her own.
CREATE TABLE own_word (
    studio_id uuid NOT NULL REFERENCES studio,
    word      text NOT NULL CHECK (word <> ''),
    movement  text NOT NULL DEFAULT '',  -- an id; '' where the word only says what is held
    implement text NOT NULL DEFAULT '',
    settings  jsonb NOT NULL DEFAULT '{}',
    made_by   uuid NOT NULL,
    made_at   timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (studio_id, word),
    FOREIGN KEY (studio_id, made_by) REFERENCES account (studio_id, account_id),
    CHECK ((movement = '') <> (implement = ''))
);
ALTER TABLE own_word ENABLE ROW LEVEL SECURITY;
ALTER TABLE own_word FORCE ROW LEVEL SECURITY;
CREATE POLICY own_studio ON own_word USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio());

ALTER TABLE studio ADD COLUMN preferences jsonb NOT NULL DEFAULT '{}';

-- +goose Down
ALTER TABLE studio DROP COLUMN preferences;
DROP TABLE own_word;
