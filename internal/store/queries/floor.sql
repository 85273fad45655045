-- name: AddFloorEvent :execrows
INSERT INTO floor_event (event_id, studio_id, client_id, session_id, kind, content, told_by, link_id, happened_at)
VALUES ($1, current_studio(), $2, $3, $4, $5, $6, $7, $8)
ON CONFLICT (event_id) DO NOTHING;

-- name: SameFloorEvent :one
SELECT EXISTS (SELECT 1 FROM floor_event WHERE event_id = $1 AND client_id = $2 AND session_id = $3 AND kind = $4 AND content = sqlc.arg(content)::jsonb);

-- name: FloorEvents :many
SELECT f.event_id, f.session_id, f.kind, f.content, f.happened_at, f.told_by, f.link_id, coalesce(account.name, '')::text AS by_name
FROM floor_event f LEFT JOIN account ON account.account_id = f.told_by
WHERE f.client_id = $1 AND f.session_id = ANY(sqlc.arg(sessions)::uuid[])
ORDER BY f.session_id, f.happened_at, f.told_at;

-- name: TellFloor :exec
SELECT pg_notify('floor', current_studio()::text || ' ' || sqlc.arg(client)::text || ' ' || sqlc.arg(session)::text);

-- name: NamesOf :many
SELECT account_id, name FROM account WHERE account_id = ANY(sqlc.arg(accounts)::uuid[]);

-- name: FloorKey :one
SELECT floor_key FROM account WHERE account_id = $1;

-- name: SetFloorKey :one
UPDATE account SET floor_key = coalesce(floor_key, sqlc.arg(fresh)::bytea) WHERE account_id = $1 RETURNING floor_key;

-- name: SessionsOn :many
SELECT s.* FROM training_session s JOIN client c ON c.client_id = s.client_id
WHERE s.planned_on BETWEEN sqlc.arg(since) AND sqlc.arg(until) AND NOT s.removed AND c.deleted_at IS NULL ORDER BY s.planned_on, s.session_id;

-- name: SessionAt :one
SELECT v.version, v.name, v.planned_on, v.content FROM session_version v JOIN training_session t ON t.session_id = v.session_id
WHERE v.session_id = $1 AND t.client_id = $2 AND v.version = $3;

-- name: SentVersion :one
SELECT session_version FROM issued_sheet WHERE session_id = $1 AND client_id = $2 ORDER BY number DESC LIMIT 1;

-- name: FirstTold :one
SELECT coalesce(same_as, entry_id)::uuid FROM set_entry WHERE entry_id = $1;
