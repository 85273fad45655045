-- name: OwnMovements :many
SELECT movement_id, entry, retired, version FROM own_movement ORDER BY made_at, movement_id;

-- name: AddOwnMovement :execrows
INSERT INTO own_movement (studio_id, movement_id, entry, made_by) VALUES (current_studio(), $1, $2, $3)
ON CONFLICT DO NOTHING;

-- name: SaveOwnMovement :execrows
UPDATE own_movement SET entry = $3, retired = $4, version = version + 1 WHERE movement_id = $1 AND version = $2;

-- name: OwnSetUps :many
SELECT setup_id, name, movement, settings FROM own_setup ORDER BY name, setup_id;

-- name: AddOwnSetUp :execrows
INSERT INTO own_setup (setup_id, studio_id, name, movement, settings, made_by) VALUES ($1, current_studio(), $2, $3, $4, $5) ON CONFLICT DO NOTHING;

-- name: SameOwnSetUp :one
SELECT EXISTS (SELECT 1 FROM own_setup WHERE setup_id = $1 AND name = $2 AND movement = $3 AND settings = sqlc.arg(settings)::jsonb);

-- name: DropOwnSetUp :execrows
DELETE FROM own_setup WHERE setup_id = $1;

-- name: OwnWords :many
SELECT word, movement, implement, settings FROM own_word ORDER BY word;

-- name: PutOwnWord :exec
INSERT INTO own_word (studio_id, word, movement, implement, settings, made_by) VALUES (current_studio(), $1, $2, $3, $4, $5)
ON CONFLICT (studio_id, word) DO UPDATE SET movement = excluded.movement, implement = excluded.implement, settings = excluded.settings,
    made_by = excluded.made_by, made_at = now();

-- name: DropOwnWord :execrows
DELETE FROM own_word WHERE word = $1;
