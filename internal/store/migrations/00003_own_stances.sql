-- +goose Up
-- A studio's own stances: a shipped one copied, with rules switched.
CREATE TABLE studio_stance (
    stance_id uuid PRIMARY KEY,
    studio_id uuid NOT NULL REFERENCES studio,
    name      text NOT NULL CHECK (name <> ''),
    copied    text NOT NULL,
    rules     text[] NOT NULL,
    version   int NOT NULL DEFAULT 1,
    made_by   uuid NOT NULL,
    FOREIGN KEY (studio_id, made_by) REFERENCES account (studio_id, account_id)
);

-- What this studio sees with its clients, kept apart from a rule's grade.
CREATE TABLE rule_note (
    studio_id uuid NOT NULL REFERENCES studio,
    rule      text NOT NULL,
    note      text NOT NULL,
    noted_by  uuid NOT NULL,
    noted_at  timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (studio_id, rule),
    FOREIGN KEY (studio_id, noted_by) REFERENCES account (studio_id, account_id)
);

-- +goose StatementBegin
DO $$
DECLARE t text;
BEGIN
    FOREACH t IN ARRAY ARRAY['studio_stance', 'rule_note'] LOOP
        EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', t);
        EXECUTE format('ALTER TABLE %I FORCE ROW LEVEL SECURITY', t);
        EXECUTE format('CREATE POLICY own_studio ON %I USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio())', t);
    END LOOP;
END $$;
-- +goose StatementEnd

-- +goose Down
DROP TABLE rule_note, studio_stance;
