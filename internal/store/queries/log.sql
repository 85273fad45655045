-- name: AddSetEntry :execrows
INSERT INTO set_entry (entry_id, studio_id, client_id, session_id, slot_id, series, set_up, side, set_no, reps, load_kg, reserve, note, done_at, logged_by, replaces, withdrawn, faults, technical, mark, unsure, row_id, parts, hollow,
    link_id, device, device_no, device_at, rest_s, same_as, twice_of)
VALUES ($1, current_studio(), $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17, $18, $19, $20, $21, $22, $23, $24, $25, $26, $27, $28, $29, $30)
ON CONFLICT (entry_id) DO NOTHING;

-- name: SetEntryByID :one
SELECT * FROM set_entry WHERE entry_id = $1 AND session_id = $2;

-- name: EntriesOfSession :many
SELECT * FROM standing_set WHERE session_id = $1
ORDER BY slot_id, set_no, side, done_at;

-- name: EntriesOfSeveral :many
SELECT e.* FROM unnest(sqlc.arg(keys)::text[]) AS wanted(series)
CROSS JOIN LATERAL (
    SELECT s.* FROM standing_set s
    WHERE s.client_id = sqlc.arg(client_id) AND s.series = wanted.series AND NOT s.unsure
    ORDER BY s.done_at DESC
    LIMIT 60
) e
ORDER BY e.series, e.done_at DESC;

-- name: SetsPerSession :many
SELECT session_id, count(*) AS sets, max(done_at)::timestamptz AS last_at FROM standing_set
WHERE client_id = $1 AND twice_of IS NULL GROUP BY session_id;

-- name: LastTraining :many
SELECT client_id, max(done_at)::timestamptz AS last_at FROM standing_set GROUP BY client_id;

-- name: EntriesSince :many
SELECT * FROM standing_set
WHERE client_id = $1 AND done_at > sqlc.arg(after) AND NOT unsure
ORDER BY done_at DESC
LIMIT 4000;

-- name: LastSets :many
SELECT series, set_up, load_kg, reps, reserve, technical, hollow, faults, done_at FROM (
    SELECT e.series, e.set_up, e.load_kg, e.reps, e.reserve, e.technical, e.hollow, e.faults, e.done_at, row_number() OVER (PARTITION BY e.series ORDER BY e.done_at DESC) AS n FROM standing_set e
    WHERE e.client_id = $1 AND e.done_at > sqlc.arg(after) AND NOT e.unsure
) last WHERE n <= sqlc.arg(most)::int ORDER BY series, done_at DESC;

-- name: EntriesOfSessions :many
SELECT * FROM standing_set WHERE session_id = ANY(sqlc.arg(sessions)::uuid[]) AND twice_of IS NULL
ORDER BY session_id, slot_id, set_no, side, done_at;
