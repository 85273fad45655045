-- name: AddStudio :exec
INSERT INTO studio (studio_id, name) VALUES ($1, $2);

-- name: GetStudio :one
SELECT * FROM studio WHERE studio_id = current_studio();

-- name: AddAccount :exec
INSERT INTO account (account_id, studio_id, email, name, role, password_hash)
VALUES ($1, current_studio(), $2, $3, $4, $5);

-- name: AccountByEmail :one
SELECT * FROM account WHERE email = $1;

-- name: AccountByID :one
SELECT * FROM account WHERE account_id = $1;

-- name: SetZone :execrows
UPDATE studio SET zone = $1 WHERE studio_id = current_studio();
