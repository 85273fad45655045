-- name: AddSession :execrows
INSERT INTO training_session (session_id, studio_id, client_id, name, planned_on, content, version, saved_by)
VALUES ($1, current_studio(), $2, $3, $4, $5, 1, $6)
ON CONFLICT DO NOTHING;

-- name: UpdateSession :execrows
UPDATE training_session
SET name = $3, planned_on = $4, content = $5, version = version + 1, saved_at = now(), saved_by = $6, removed = $7
WHERE session_id = $1 AND version = $2;

-- name: AddSessionVersion :execrows
INSERT INTO session_version (session_id, version, studio_id, write_id, name, planned_on, content, saved_by, removed)
SELECT t.session_id, t.version, t.studio_id, sqlc.arg(write_id), t.name, t.planned_on, t.content, t.saved_by, t.removed
FROM training_session t WHERE t.session_id = sqlc.arg(session_id)
ON CONFLICT (write_id) DO NOTHING;

-- name: VersionByWrite :one
SELECT version, name, planned_on, content, removed FROM session_version WHERE write_id = $1 AND session_id = $2;

-- name: SessionByID :one
SELECT sqlc.embed(training_session), account.name AS saved_by_name
FROM training_session JOIN account ON account.account_id = training_session.saved_by
WHERE session_id = $1 AND client_id = $2;

-- name: SessionsOfClient :many
SELECT * FROM training_session WHERE client_id = $1 AND NOT removed ORDER BY planned_on, session_id;

-- name: Sessions :many
SELECT * FROM training_session WHERE NOT removed ORDER BY planned_on, session_id;

-- name: CurrentSessions :many
SELECT DISTINCT ON (client_id) client_id, session_id, version, saved_at FROM training_session
WHERE NOT removed AND (sqlc.narg(client)::uuid IS NULL OR client_id = sqlc.narg(client)::uuid)
ORDER BY client_id, planned_on < sqlc.arg(today), CASE WHEN planned_on >= sqlc.arg(today) THEN planned_on END, planned_on DESC, session_id;

-- name: SessionsByID :many
SELECT * FROM training_session WHERE session_id = ANY(sqlc.arg(ids)::uuid[]);

-- name: SessionLines :many
SELECT session_id, name, planned_on, jsonb_array_length(content->'slots')::int AS slots FROM training_session
WHERE client_id = $1 AND NOT removed ORDER BY planned_on, session_id;
