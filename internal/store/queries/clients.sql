-- name: AddRoom :execrows
INSERT INTO room (room_id, studio_id, equipment) VALUES ($1, current_studio(), $2) ON CONFLICT DO NOTHING;

-- name: SameRoom :one
SELECT EXISTS (SELECT 1 FROM room WHERE room_id = $1 AND equipment = sqlc.arg(equipment)::jsonb);

-- name: PutRoom :execrows
UPDATE room SET equipment = sqlc.arg(equipment)::jsonb WHERE room_id = $1 AND md5(equipment::text) = sqlc.arg(was)::text;

-- name: Rooms :many
SELECT room_id, equipment, md5(equipment::text) AS mark FROM room ORDER BY equipment ->> 'name', room_id;

-- name: AddClient :execrows
INSERT INTO client (client_id, studio_id, dossier, coach_id) VALUES ($1, current_studio(), $2, $3) ON CONFLICT (client_id) DO NOTHING;

-- name: SameClient :one
SELECT EXISTS (SELECT 1 FROM client WHERE client_id = $1 AND deleted_at IS NULL AND name = sqlc.arg(name)::text);

-- name: Clients :many
SELECT * FROM client_whole WHERE deleted_at IS NULL ORDER BY name, client_id;

-- name: ClientByID :one
SELECT * FROM client_whole WHERE client_id = $1 AND deleted_at IS NULL;

-- name: LockDossier :one
SELECT dossier FROM client WHERE client_id = $1 AND deleted_at IS NULL FOR UPDATE;

-- name: SaveDossier :exec
UPDATE client SET dossier = $2 WHERE client_id = $1;

-- name: AddDossierChange :exec
INSERT INTO dossier_change (studio_id, client_id, field, was, value, changed_by, changed_at) VALUES (current_studio(), $1, $2, $3, $4, $5, $6);

-- name: LastDossierChange :one
SELECT account.name, changed_at FROM dossier_change d JOIN account ON account.account_id = d.changed_by
WHERE d.client_id = $1 AND d.field = $2 ORDER BY change_id DESC LIMIT 1;

-- name: SetStance :execrows
UPDATE client SET stance = $2 WHERE client_id = $1 AND deleted_at IS NULL;

-- name: DeleteClient :execrows
UPDATE client SET deleted_at = $2, deleted_by = $3 WHERE client_id = $1 AND deleted_at IS NULL;

-- name: RestoreClient :execrows
UPDATE client SET deleted_at = NULL, deleted_by = NULL WHERE client_id = $1 AND deleted_at IS NOT NULL;

-- name: DeletedClients :many
SELECT client_id, name, deleted_at FROM client WHERE deleted_at IS NOT NULL ORDER BY deleted_at, client_id;

-- name: EraseClient :one
SELECT erase_client($1)::boolean;

-- name: EraseConsented :one
SELECT erase_consented(sqlc.arg(of_client), sqlc.arg(what), sqlc.arg(by_account))::boolean;

-- name: AddStudioEvent :exec
INSERT INTO studio_event (studio_id, client_id, what, by_account) VALUES (current_studio(), $1, $2, $3);

-- name: StudioEvents :many
SELECT e.client_id, e.what, e.happened_at, coalesce(account.name, '') AS by_name
FROM studio_event e LEFT JOIN account ON account.account_id = e.by_account ORDER BY e.event_id DESC LIMIT 200;

-- name: Studios :many
SELECT studio_id, name FROM studio ORDER BY name, studio_id;

-- name: ElsewhereBefore :one
SELECT was, changed_at FROM dossier_change WHERE client_id = $1 AND field = 'elsewhere' AND changed_at > sqlc.arg(since) ORDER BY changed_at LIMIT 1;
