-- +goose Up
-- A sheet as it left: what the client reads, whatever becomes of the plan.
CREATE TABLE issued_sheet (
    issue_id        uuid PRIMARY KEY,
    studio_id       uuid NOT NULL REFERENCES studio,
    client_id       uuid NOT NULL,
    session_id      uuid NOT NULL,
    number          int NOT NULL, -- of the session's sheets
    session_version int NOT NULL, -- what it was made of
    planned_on      date NOT NULL,
    sheet           jsonb NOT NULL,
    issued_by       uuid NOT NULL,
    issued_at       timestamptz NOT NULL DEFAULT now(),
    UNIQUE (session_id, number),
    FOREIGN KEY (studio_id, client_id) REFERENCES client (studio_id, client_id),
    FOREIGN KEY (studio_id, issued_by) REFERENCES account (studio_id, account_id)
);
CREATE INDEX ON issued_sheet (client_id, planned_on);

-- A link to a client's issued sheets. The token itself is not kept: who has the
-- database has no link.
CREATE TABLE sheet_link (
    link_id    uuid PRIMARY KEY,
    studio_id  uuid NOT NULL REFERENCES studio,
    client_id  uuid NOT NULL,
    token_hash text NOT NULL UNIQUE,
    expires_at timestamptz NOT NULL,
    revoked_at timestamptz,
    opened_at  timestamptz, -- last
    opened     int NOT NULL DEFAULT 0,
    made_by    uuid NOT NULL,
    made_at    timestamptz NOT NULL DEFAULT now(),
    FOREIGN KEY (studio_id, client_id) REFERENCES client (studio_id, client_id),
    FOREIGN KEY (studio_id, made_by) REFERENCES account (studio_id, account_id)
);
CREATE INDEX ON sheet_link (client_id);

-- +goose StatementBegin
DO $$
DECLARE t text;
BEGIN
    FOREACH t IN ARRAY ARRAY['issued_sheet', 'sheet_link'] LOOP
        EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', t);
        EXECUTE format('ALTER TABLE %I FORCE ROW LEVEL SECURITY', t);
        EXECUTE format('CREATE POLICY own_studio ON %I USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio())', t);
    END LOOP;
END $$;
-- +goose StatementEnd
-- Whoever brings a token sees its link, and no other.
CREATE POLICY by_token ON sheet_link FOR SELECT USING (token_hash = nullif(current_setting('musculus.token', true), ''));

-- +goose StatementBegin
CREATE OR REPLACE FUNCTION erase_client(erased uuid, deleted_before timestamptz) RETURNS boolean LANGUAGE plpgsql SECURITY DEFINER SET search_path = public AS $$
DECLARE t text;
BEGIN
    PERFORM 1 FROM client WHERE client_id = erased AND deleted_at < deleted_before FOR UPDATE;
    IF NOT FOUND THEN
        RETURN false;
    END IF;
    DELETE FROM set_entry WHERE client_id = erased AND replaces IS NOT NULL;
    DELETE FROM set_entry WHERE client_id = erased;
    DELETE FROM session_version WHERE session_id IN (SELECT session_id FROM training_session WHERE client_id = erased);
    FOREACH t IN ARRAY ARRAY['issued_sheet', 'sheet_link', 'training_session', 'dossier_change', 'screening_round', 'joint_report', 'verdict_override', 'measuring', 'photo',
        'pose_rating', 'emphasis', 'present_answer', 'try_out', 'accepted_finding', 'client'] LOOP
        EXECUTE format('DELETE FROM %I WHERE client_id = $1', t) USING erased;
    END LOOP;
    INSERT INTO studio_event (studio_id, client_id, what) VALUES (current_studio(), erased, 'erased');
    RETURN true;
END $$;
-- +goose StatementEnd

-- +goose Down
DROP TABLE sheet_link;
DROP TABLE issued_sheet;
