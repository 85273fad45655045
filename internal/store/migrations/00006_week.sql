-- +goose Up
-- A finding the coach accepted with a reason, or no longer does; the latest of a
-- key counts.
CREATE TABLE accepted_finding (
    accepted_id uuid PRIMARY KEY,
    studio_id   uuid NOT NULL REFERENCES studio,
    client_id   uuid NOT NULL,
    finding     text NOT NULL,
    accepted    boolean NOT NULL,
    reason      text NOT NULL,
    made_by     uuid NOT NULL,
    made_at     timestamptz NOT NULL DEFAULT now(),
    FOREIGN KEY (studio_id, client_id) REFERENCES client (studio_id, client_id),
    FOREIGN KEY (studio_id, made_by) REFERENCES account (studio_id, account_id)
);
CREATE INDEX ON accepted_finding (client_id, finding, made_at);
ALTER TABLE accepted_finding ENABLE ROW LEVEL SECURITY;
ALTER TABLE accepted_finding FORCE ROW LEVEL SECURITY;
CREATE POLICY own_studio ON accepted_finding USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio());

-- What is erased with a client lies in a function of its own, so that a table
-- that comes later adds itself here. See 00005 for who may call it.
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
    FOREACH t IN ARRAY ARRAY['training_session', 'dossier_change', 'screening_round', 'joint_report', 'verdict_override', 'measuring', 'photo', 'pose_rating', 'emphasis',
        'present_answer', 'try_out', 'accepted_finding', 'client'] LOOP
        EXECUTE format('DELETE FROM %I WHERE client_id = $1', t) USING erased;
    END LOOP;
    INSERT INTO studio_event (studio_id, client_id, what) VALUES (current_studio(), erased, 'erased');
    RETURN true;
END $$;
-- +goose StatementEnd

-- +goose Down
DROP TABLE accepted_finding;
