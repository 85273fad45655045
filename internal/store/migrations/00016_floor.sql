-- +goose Up
-- A link may be allowed to log. What is told by one has no account.
ALTER TABLE sheet_link ADD COLUMN may_log boolean NOT NULL DEFAULT false;
ALTER TABLE set_entry ALTER COLUMN logged_by DROP NOT NULL;
ALTER TABLE joint_report ALTER COLUMN reported_by DROP NOT NULL;
ALTER TABLE screening_round ALTER COLUMN asked_by DROP NOT NULL;

-- A set keeps who told it, from which device and by which of its clocks. A set that
-- two devices told is one (same_as), or it is asked about (twice_of).
ALTER TABLE set_entry ADD COLUMN link_id uuid;
ALTER TABLE set_entry ADD COLUMN device uuid;
ALTER TABLE set_entry ADD COLUMN device_no bigint NOT NULL DEFAULT 0;
ALTER TABLE set_entry ADD COLUMN device_at timestamptz;
ALTER TABLE set_entry ADD COLUMN rest_s real;
ALTER TABLE set_entry ADD COLUMN same_as uuid;
ALTER TABLE set_entry ADD COLUMN twice_of uuid;

DROP VIEW standing_set;
CREATE VIEW standing_set WITH (security_invoker = true) AS
SELECT e.* FROM set_entry e
WHERE NOT e.withdrawn AND e.same_as IS NULL AND NOT EXISTS (SELECT 1 FROM set_entry r WHERE r.replaces = e.entry_id);

-- What is told of a session beside its sets: pain, what was left out and why, a swap,
-- how it ended, a line of the coach's.
CREATE TABLE floor_event (
    event_id    uuid PRIMARY KEY,
    studio_id   uuid NOT NULL REFERENCES studio,
    client_id   uuid NOT NULL,
    session_id  uuid NOT NULL,
    kind        text NOT NULL CHECK (kind IN ('pain', 'left_out', 'swap', 'end', 'line', 'undone')),
    content     jsonb NOT NULL,
    told_by     uuid,
    link_id     uuid,
    happened_at timestamptz NOT NULL, -- by the device's clock, put right
    told_at     timestamptz NOT NULL DEFAULT now(),
    CHECK (told_by IS NOT NULL OR link_id IS NOT NULL),
    FOREIGN KEY (studio_id, client_id) REFERENCES client (studio_id, client_id),
    FOREIGN KEY (studio_id, told_by) REFERENCES account (studio_id, account_id)
);
CREATE INDEX ON floor_event (studio_id, client_id, session_id);
ALTER TABLE floor_event ENABLE ROW LEVEL SECURITY;
ALTER TABLE floor_event FORCE ROW LEVEL SECURITY;
CREATE POLICY own_studio ON floor_event USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio());

-- What a device keeps of an account while nobody is signed in is locked with this key.
ALTER TABLE account ADD COLUMN floor_key bytea;

-- Pain told in a session goes with the other notes of health.
-- +goose StatementBegin
CREATE FUNCTION erase_floor_health() RETURNS trigger LANGUAGE plpgsql SECURITY DEFINER SET search_path = public AS $$
BEGIN
    IF NEW.what = 'erased health' THEN
        DELETE FROM floor_event WHERE client_id = NEW.client_id AND studio_id = NEW.studio_id AND kind IN ('pain', 'swap');
        UPDATE floor_event SET content = jsonb_set(content, '{left_out,reason}', '"not_today"')
            WHERE client_id = NEW.client_id AND studio_id = NEW.studio_id AND kind = 'left_out' AND content #>> '{left_out,reason}' = 'pain';
    END IF;
    RETURN NEW;
END $$;
-- +goose StatementEnd
CREATE TRIGGER erase_floor_health AFTER INSERT ON studio_event FOR EACH ROW EXECUTE FUNCTION erase_floor_health();

-- +goose Down
SELECT 1 / 0; -- what links told has no place in the old columns
