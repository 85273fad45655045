-- name: AddBlock :execrows
INSERT INTO block (block_id, studio_id, client_id, version, content, starts_on, ends_on, saved_by)
VALUES ($1, current_studio(), $2, 1, $3, $4, $5, $6) ON CONFLICT (block_id) DO NOTHING;

-- name: SaveBlock :execrows
UPDATE block SET content = $4, starts_on = $5, ends_on = $6, saved_by = $7, saved_at = now(), version = version + 1
WHERE block_id = $1 AND client_id = $2 AND version = $3 AND NOT ended;

-- name: EndBlock :execrows
UPDATE block SET ended = true, ends_on = least(ends_on, sqlc.arg(last)::date), saved_by = sqlc.arg(saved_by), saved_at = now(), version = version + 1
WHERE block_id = $1 AND client_id = $2 AND NOT ended;

-- name: EndBlocks :exec
UPDATE block SET ended = true WHERE client_id = $1 AND NOT ended;

-- name: Blocks :many
SELECT b.*, a.name AS saved_by_name FROM block b JOIN account a ON a.account_id = b.saved_by
WHERE b.client_id = $1 AND b.ends_on >= sqlc.arg(since) ORDER BY b.starts_on, b.block_id;

-- name: BlockByID :one
SELECT b.*, a.name AS saved_by_name FROM block b JOIN account a ON a.account_id = b.saved_by WHERE b.block_id = $1 AND b.client_id = $2;

-- name: RunningBlocks :many
SELECT b.client_id FROM block b JOIN client c ON c.client_id = b.client_id AND c.deleted_at IS NULL
WHERE NOT b.ended AND b.ends_on >= sqlc.arg(today) ORDER BY b.client_id;

-- name: KeepBlockSession :exec
INSERT INTO block_session (session_id, studio_id, client_id, block_id, turn, day_id, decided, content)
VALUES ($1, current_studio(), $2, $3, $4, $5, $6, $7)
ON CONFLICT (session_id) DO UPDATE SET block_id = excluded.block_id, turn = excluded.turn, day_id = excluded.day_id, decided = excluded.decided,
    content = excluded.content;

-- name: BlockSessions :many
SELECT b.turn, b.day_id, b.decided, b.content AS made, b.missed, sqlc.embed(s),
    (SELECT count(*) FROM standing_set e WHERE e.session_id = s.session_id)::int AS sets,
    EXISTS (SELECT 1 FROM floor_event f WHERE f.session_id = s.session_id AND f.kind = 'end') AS over,
    EXISTS (SELECT 1 FROM issued_sheet i WHERE i.session_id = s.session_id) AS issued
FROM block_session b JOIN training_session s ON s.session_id = b.session_id
WHERE b.block_id = $1 ORDER BY b.turn, s.planned_on, s.session_id;

-- name: SayMissed :execrows
UPDATE block_session SET missed = $2 WHERE session_id = $1 AND missed IN ('', $2);

