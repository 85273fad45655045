-- +goose Up
-- A studio's own movements: one entry each, in the words of the catalogue's data.
CREATE TABLE own_movement (
    studio_id   uuid NOT NULL REFERENCES studio,
    movement_id text NOT NULL,
    entry       text NOT NULL CHECK (length(entry) <= 20000),
    retired     boolean NOT NULL DEFAULT false,
    version     int NOT NULL DEFAULT 1,
    made_by     uuid NOT NULL,
    made_at     timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (studio_id, movement_id),
    FOREIGN KEY (studio_id, made_by) REFERENCES account (studio_id, account_id)
);

-- Set-ups kept under a name of the studio's.
CREATE TABLE own_setup (
    setup_id  uuid PRIMARY KEY,
    studio_id uuid NOT NULL REFERENCES studio,
    name      text NOT NULL CHECK (name <> ''),
    movement  text NOT NULL,
    settings  jsonb NOT NULL,
    made_by   uuid NOT NULL,
    FOREIGN KEY (studio_id, made_by) REFERENCES account (studio_id, account_id)
);

-- +goose StatementBegin
DO $$
DECLARE t text;
BEGIN
    FOREACH t IN ARRAY ARRAY['own_movement', 'own_setup'] LOOP
        EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', t);
        EXECUTE format('ALTER TABLE %I FORCE ROW LEVEL SECURITY', t);
        EXECUTE format('CREATE POLICY own_studio ON %I USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio())', t);
    END LOOP;
END $$;
-- +goose StatementEnd

-- +goose Down
DROP TABLE own_setup, own_movement;
