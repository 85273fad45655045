-- +goose Up
-- Why a set stands in the log although training was stopped, whether it is still to
-- be asked about, and when it was entered.
ALTER TABLE set_entry ADD COLUMN mark text NOT NULL DEFAULT '' CHECK (mark IN ('', 'earlier', 'corrected', 'waited'));
ALTER TABLE set_entry ADD COLUMN unsure boolean NOT NULL DEFAULT false;
ALTER TABLE set_entry ADD COLUMN entered_at timestamptz NOT NULL DEFAULT now();

-- What a photo's upload was, so that the same id with another picture is told.
ALTER TABLE photo ADD COLUMN digest text NOT NULL DEFAULT '';

-- What every writing of a measuring session left, append-only: whoever corrects or
-- withdraws one leaves the one before, with who made it.
ALTER TABLE measuring ADD COLUMN version int NOT NULL DEFAULT 1;
ALTER TABLE measuring ADD COLUMN made_at timestamptz NOT NULL DEFAULT now();
CREATE TABLE measuring_version (
    measuring_id uuid NOT NULL,
    version      int NOT NULL,
    studio_id    uuid NOT NULL REFERENCES studio,
    client_id    uuid NOT NULL,
    measured_on  date NOT NULL,
    content      jsonb NOT NULL,
    withdrawn    boolean NOT NULL,
    made_by      uuid NOT NULL,
    made_at      timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (measuring_id, version),
    FOREIGN KEY (studio_id, client_id) REFERENCES client (studio_id, client_id),
    FOREIGN KEY (studio_id, made_by) REFERENCES account (studio_id, account_id)
);
CREATE INDEX ON measuring_version (client_id);
-- The owner of the schema is held to the studio too; for once it sees all rows.
ALTER TABLE measuring NO FORCE ROW LEVEL SECURITY;
INSERT INTO measuring_version (measuring_id, version, studio_id, client_id, measured_on, content, withdrawn, made_by, made_at)
SELECT measuring_id, version, studio_id, client_id, measured_on, content, withdrawn, made_by, made_at FROM measuring;
ALTER TABLE measuring FORCE ROW LEVEL SECURITY;
ALTER TABLE measuring_version ENABLE ROW LEVEL SECURITY;
ALTER TABLE measuring_version FORCE ROW LEVEL SECURITY;
CREATE POLICY own_studio ON measuring_version USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio());

-- Erasing a client for good. Nobody may call it early: the month is counted here,
-- by the database's own clock. Nobody may call it for another studio, whatever role
-- owns the schema. A table that comes later is erased by having a client_id.
DROP FUNCTION erase_client(uuid, timestamptz);
-- +goose StatementBegin
CREATE FUNCTION erase_client(erased uuid) RETURNS boolean LANGUAGE plpgsql SECURITY DEFINER SET search_path = public AS $$
DECLARE t text;
BEGIN
    PERFORM 1 FROM client WHERE client_id = erased AND studio_id = current_studio() AND deleted_at < now() - interval '30 days' FOR UPDATE;
    IF NOT FOUND THEN
        RETURN false;
    END IF;
    DELETE FROM set_entry WHERE client_id = erased AND replaces IS NOT NULL;
    DELETE FROM set_entry WHERE client_id = erased;
    DELETE FROM session_version WHERE session_id IN (SELECT session_id FROM training_session WHERE client_id = erased);
    FOR t IN SELECT c.table_name FROM information_schema.columns c JOIN information_schema.tables b USING (table_schema, table_name)
        WHERE c.table_schema = 'public' AND b.table_type = 'BASE TABLE' AND c.column_name = 'client_id' AND c.table_name NOT IN ('client', 'studio_event') LOOP
        EXECUTE format('DELETE FROM %I WHERE client_id = $1', t) USING erased;
    END LOOP;
    DELETE FROM client WHERE client_id = erased;
    INSERT INTO studio_event (studio_id, client_id, what) VALUES (current_studio(), erased, 'erased');
    RETURN true;
END $$;
-- +goose StatementEnd
REVOKE ALL ON FUNCTION erase_client(uuid) FROM PUBLIC;

-- Erasing what was kept by a consent that no longer holds: health notes, or measures
-- and photos. Sheets that left keep what was to be done, not why.
-- +goose StatementBegin
CREATE FUNCTION erase_consented(of_client uuid, what text, by_account uuid) RETURNS boolean LANGUAGE plpgsql SECURITY DEFINER SET search_path = public AS $$
DECLARE t text;
BEGIN
    PERFORM 1 FROM client WHERE client_id = of_client AND studio_id = current_studio() AND deleted_at IS NULL AND what IN ('health', 'body') AND dossier ->> (what || '_consent') IS NULL FOR UPDATE;
    IF NOT FOUND THEN
        RETURN false;
    END IF;
    IF what = 'body' THEN
        FOREACH t IN ARRAY ARRAY['measuring', 'measuring_version', 'photo'] LOOP
            EXECUTE format('DELETE FROM %I WHERE client_id = $1', t) USING of_client;
        END LOOP;
    ELSE
        FOREACH t IN ARRAY ARRAY['screening_round', 'joint_report', 'verdict_override'] LOOP
            EXECUTE format('DELETE FROM %I WHERE client_id = $1', t) USING of_client;
        END LOOP;
        DELETE FROM dossier_change WHERE client_id = of_client AND field = 'mobility';
        DELETE FROM accepted_finding WHERE client_id = of_client AND split_part(finding, ':', 1) IN ('avoid', 'modify', 'ladder', 'cue', 'joint', 'dose', 'combo', 'load');
        UPDATE client SET dossier = dossier || '{"mobility": {"one_weight": "", "two_weights": "", "dip_level": "", "clean_dips": 0, "clean_pulls": 0}}' WHERE client_id = of_client;
        UPDATE issued_sheet SET sheet = sheet - 'screening' - 'screened' - 'caps' WHERE client_id = of_client;
        UPDATE training_session SET content = jsonb_set(content, '{slots}', coalesce((SELECT jsonb_agg(s.slot - 'cue_reason' ORDER BY s.n) FROM jsonb_array_elements(content -> 'slots') WITH ORDINALITY s (slot, n)), '[]'))
            WHERE client_id = of_client AND content::text LIKE '%"cue_reason"%';
        UPDATE session_version SET content = jsonb_set(content, '{slots}', coalesce((SELECT jsonb_agg(s.slot - 'cue_reason' ORDER BY s.n) FROM jsonb_array_elements(content -> 'slots') WITH ORDINALITY s (slot, n)), '[]'))
            WHERE session_id IN (SELECT session_id FROM training_session WHERE client_id = of_client) AND content::text LIKE '%"cue_reason"%';
    END IF;
    INSERT INTO studio_event (studio_id, client_id, what, by_account) VALUES (current_studio(), of_client, 'erased ' || what, by_account);
    RETURN true;
END $$;
-- +goose StatementEnd
REVOKE ALL ON FUNCTION erase_consented(uuid, text, uuid) FROM PUBLIC;

-- +goose Down
SELECT 1 / 0; -- who made which measuring has no place in the old columns
