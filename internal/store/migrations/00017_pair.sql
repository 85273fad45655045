-- +goose Up
-- Two slots can go on in turns when time runs over.
ALTER TABLE floor_event DROP CONSTRAINT floor_event_kind_check;
ALTER TABLE floor_event ADD CONSTRAINT floor_event_kind_check
    CHECK (kind IN ('pain', 'left_out', 'swap', 'paired', 'end', 'line', 'undone'));

-- +goose Down
ALTER TABLE floor_event DROP CONSTRAINT floor_event_kind_check;
ALTER TABLE floor_event ADD CONSTRAINT floor_event_kind_check
    CHECK (kind IN ('pain', 'left_out', 'swap', 'end', 'line', 'undone'));
