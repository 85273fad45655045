-- name: AddRoom :exec
INSERT INTO room (room_id, studio_id, equipment) VALUES ($1, current_studio(), $2);

-- name: AddClient :exec
INSERT INTO client (client_id, studio_id, room_id, name, about, wish, minutes, stature_m, body_mass_kg, caps, screened_on)
VALUES ($1, current_studio(), $2, $3, $4, $5, $6, $7, $8, $9, $10);

-- name: Clients :many
SELECT sqlc.embed(client), sqlc.embed(room)
FROM client JOIN room USING (studio_id, room_id)
ORDER BY client.name;

-- name: ClientByID :one
SELECT sqlc.embed(client), sqlc.embed(room)
FROM client JOIN room USING (studio_id, room_id)
WHERE client_id = $1;

-- name: SetStance :execrows
UPDATE client SET stance = $2 WHERE client_id = $1;
