-- name: AddDecision :execrows
INSERT INTO decision (decision_id, studio_id, client_id, series, answer, of_decision, content, made_on, made_by)
VALUES ($1, current_studio(), $2, $3, $4, $5, $6, $7, $8)
ON CONFLICT (decision_id) DO NOTHING;

-- name: SameDecision :one
SELECT EXISTS (SELECT 1 FROM decision WHERE decision_id = $1 AND client_id = $2 AND series = $3 AND answer = $4
    AND of_decision IS NOT DISTINCT FROM sqlc.narg(of_decision)::uuid AND content ->> 'kind' = sqlc.arg(kind)::text);

-- name: Decisions :many
SELECT decision_id, series, answer, of_decision, content, made_on, made_by FROM decision WHERE client_id = $1 ORDER BY made_at, decision_id;

-- name: ClientReading :one
SELECT read_for, stale, hash, content FROM client_reading WHERE client_id = $1;

-- name: ClientReadings :many
SELECT r.client_id, r.read_for, r.stale, r.content FROM client_reading r JOIN client c ON c.client_id = r.client_id AND c.deleted_at IS NULL;

-- name: ClaimReading :exec
INSERT INTO client_reading (client_id, studio_id, read_for, stale, hash, content) VALUES ($1, current_studio(), '0001-01-01', false, '', '{}')
ON CONFLICT (client_id) DO UPDATE SET stale = false, read_for = '0001-01-01';

-- name: KeepReading :exec
UPDATE client_reading SET read_for = $2, hash = $3, content = $4 WHERE client_id = $1;

-- name: ToRead :many
SELECT c.client_id FROM client c LEFT JOIN client_reading r ON r.client_id = c.client_id
WHERE c.deleted_at IS NULL AND (r.client_id IS NULL OR r.stale OR r.read_for <> sqlc.arg(today)) ORDER BY c.client_id;

-- name: EventsOfClient :many
SELECT f.event_id, f.session_id, f.kind, f.content, f.happened_at, f.told_by, f.link_id, ''::text AS by_name
FROM floor_event f WHERE f.client_id = $1 AND f.happened_at > sqlc.arg(after) ORDER BY f.session_id, f.happened_at, f.told_at;
