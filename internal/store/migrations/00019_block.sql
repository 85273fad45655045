-- +goose Up
-- Some weeks, or rotations, planned as one. One runs at a time.
CREATE TABLE block (
    block_id  uuid PRIMARY KEY,
    studio_id uuid NOT NULL REFERENCES studio,
    client_id uuid NOT NULL,
    version   integer NOT NULL,
    content   jsonb NOT NULL,
    starts_on date NOT NULL,
    ends_on   date NOT NULL, -- its last day
    ended     boolean NOT NULL DEFAULT false, -- by hand, or another one follows
    saved_by  uuid NOT NULL,
    saved_at  timestamptz NOT NULL DEFAULT now(),
    FOREIGN KEY (studio_id, client_id) REFERENCES client (studio_id, client_id),
    FOREIGN KEY (studio_id, saved_by) REFERENCES account (studio_id, account_id)
);
CREATE UNIQUE INDEX ON block (client_id) WHERE NOT ended;
CREATE INDEX ON block (client_id, starts_on);
ALTER TABLE block ENABLE ROW LEVEL SECURITY;
ALTER TABLE block FORCE ROW LEVEL SECURITY;
CREATE POLICY own_studio ON block USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio());

-- The sessions that were made of it, as they were written: what differs now is somebody's hand.
CREATE TABLE block_session (
    session_id uuid PRIMARY KEY REFERENCES training_session ON DELETE CASCADE,
    studio_id  uuid NOT NULL REFERENCES studio,
    client_id  uuid NOT NULL,
    block_id   uuid NOT NULL REFERENCES block ON DELETE CASCADE,
    turn       integer NOT NULL,
    day_id     uuid NOT NULL,
    decided    integer NOT NULL, -- decisions that it holds
    content    jsonb NOT NULL,
    missed     text NOT NULL DEFAULT '' CHECK (missed IN ('', 'slide', 'drop', 'fold')),
    UNIQUE (block_id, turn, day_id),
    FOREIGN KEY (studio_id, client_id) REFERENCES client (studio_id, client_id)
);
ALTER TABLE block_session ENABLE ROW LEVEL SECURITY;
ALTER TABLE block_session FORCE ROW LEVEL SECURITY;
CREATE POLICY own_studio ON block_session USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio());

CREATE TRIGGER reading_is_stale AFTER INSERT OR UPDATE ON block FOR EACH ROW EXECUTE FUNCTION reading_is_stale();
CREATE TRIGGER reading_is_stale AFTER INSERT OR UPDATE ON block_session FOR EACH ROW EXECUTE FUNCTION reading_is_stale();

-- +goose Down
DROP TABLE block_session, block;
