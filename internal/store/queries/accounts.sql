-- name: AddStudio :exec
INSERT INTO studio (studio_id, name) VALUES ($1, $2);

-- name: GetStudio :one
SELECT * FROM studio WHERE studio_id = current_studio();

-- name: SetZone :execrows
UPDATE studio SET zone = $1 WHERE studio_id = current_studio();

-- name: SetPreferences :exec
UPDATE studio SET preferences = $1 WHERE studio_id = current_studio();

-- name: DemandSecondFactor :exec
UPDATE studio SET second_factor = $1 WHERE studio_id = current_studio();

-- name: AddLogin :exec
INSERT INTO login (login_id, email, password_hash) VALUES ($1, $2, $3);

-- name: LoginByEmail :one
SELECT * FROM login WHERE email = $1;

-- name: LoginByID :one
SELECT * FROM login WHERE login_id = current_login();

-- name: SetPassword :exec
UPDATE login SET password_hash = $1 WHERE login_id = current_login();

-- name: SetReading :exec
UPDATE login SET units = $1, dates = $2 WHERE login_id = current_login();

-- name: SetFactor :exec
UPDATE login SET totp_secret = $1, totp_on = $2, totp_step = CASE WHEN $2 THEN totp_step ELSE 0 END WHERE login_id = current_login();

-- name: UseStep :execrows
UPDATE login SET totp_step = $1 WHERE login_id = current_login() AND totp_step < $1;

-- name: DropRecoveryCodes :exec
DELETE FROM recovery_code WHERE login_id = current_login();

-- name: AddRecoveryCode :exec
INSERT INTO recovery_code (login_id, code_hash) VALUES (current_login(), $1);

-- name: UseRecoveryCode :execrows
DELETE FROM recovery_code WHERE login_id = current_login() AND code_hash = $1;

-- name: RecoveryCodes :one
SELECT count(*) FROM recovery_code WHERE login_id = current_login();

-- name: AddAccount :exec
INSERT INTO account (account_id, studio_id, login_id, name, role) VALUES ($1, current_studio(), $2, $3, $4);

-- name: AccountByID :one
SELECT account.*, login.email, login.units, login.dates, login.totp_on, studio.second_factor FROM account JOIN login USING (login_id) JOIN studio USING (studio_id)
WHERE account.studio_id = current_studio() AND account_id = $1;

-- name: AccountsOfStudio :many
SELECT account.*, login.email, login.totp_on,
    coalesce((SELECT max(s.seen_at) FROM sign_in s WHERE s.login_id = account.login_id), 'epoch')::timestamptz AS seen_at,
    (SELECT count(*) FROM client c WHERE c.coach_id = account.account_id AND c.deleted_at IS NULL)::int AS clients
FROM account JOIN login USING (login_id) WHERE account.studio_id = current_studio() ORDER BY account.disabled_at NULLS FIRST, account.name;

-- name: LockOwners :many
SELECT account_id FROM account WHERE studio_id = current_studio() AND role = 'owner' AND disabled_at IS NULL ORDER BY account_id FOR UPDATE;

-- name: SetAccount :execrows
UPDATE account SET role = $2, disabled_at = $3 WHERE studio_id = current_studio() AND account_id = $1;

-- name: RenameAccount :exec
UPDATE account SET name = $2 WHERE studio_id = current_studio() AND account_id = $1;

-- name: StudiosOfLogin :many
SELECT account.account_id, account.studio_id, account.role, studio.name FROM account JOIN studio USING (studio_id)
WHERE account.login_id = current_login() AND account.disabled_at IS NULL ORDER BY studio.name, studio.studio_id;

-- name: HandOver :execrows
UPDATE client SET coach_id = sqlc.arg(next) WHERE studio_id = current_studio() AND coach_id = sqlc.arg(before);

-- name: AddSignIn :exec
INSERT INTO sign_in (sign_in_id, login_id, agent, own_device, made_at, seen_at) VALUES ($1, current_login(), $2, $3, sqlc.arg(now), sqlc.arg(now));

-- name: SignInByID :one
SELECT * FROM sign_in WHERE login_id = current_login() AND sign_in_id = $1;

-- name: SeenSignIn :exec
UPDATE sign_in SET seen_at = $2 WHERE login_id = current_login() AND sign_in_id = $1;

-- name: SignIns :many
SELECT * FROM sign_in WHERE login_id = current_login() AND ended_at IS NULL ORDER BY seen_at DESC;

-- name: EndSignIns :execrows
UPDATE sign_in SET ended_at = sqlc.arg(now) WHERE login_id = current_login() AND ended_at IS NULL
    AND (sqlc.narg(one)::uuid IS NULL OR sign_in_id = sqlc.narg(one)) AND (sqlc.narg(other)::uuid IS NULL OR sign_in_id <> sqlc.narg(other));

-- name: KnowDevice :exec
INSERT INTO known_device (token_hash, login_id, seen_at) VALUES ($1, current_login(), $2) ON CONFLICT (login_id, token_hash) DO UPDATE SET seen_at = excluded.seen_at;

-- name: IsKnownDevice :one
SELECT EXISTS (SELECT 1 FROM known_device WHERE login_id = current_login() AND token_hash = $1);

-- name: ForgetDevices :exec
DELETE FROM known_device WHERE login_id = current_login();

-- name: BeginAttempt :exec
INSERT INTO attempt (key, failures, since, next_at) VALUES ($1, 0, $2, $2) ON CONFLICT (key) DO NOTHING;

-- name: LessAttempt :exec
UPDATE attempt SET failures = greatest(failures - 1, 0), next_at = since WHERE key = $1;

-- name: LockAttempt :one
SELECT * FROM attempt WHERE key = $1 FOR UPDATE;

-- name: PutAttempt :exec
UPDATE attempt SET failures = $2, since = $3, next_at = $4 WHERE key = $1;

-- name: ForgetAttempt :exec
DELETE FROM attempt WHERE key = $1;

-- name: SweepAttempts :exec
DELETE FROM attempt WHERE since < $1;

-- name: AddOneTime :execrows
INSERT INTO one_time (one_time_id, token_hash, kind, studio_id, login_id, email, role, made_by, made_at, expires_at)
VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10) ON CONFLICT (one_time_id) DO NOTHING;

-- name: SameInvitation :one
SELECT EXISTS (SELECT 1 FROM one_time WHERE kind = 'invitation' AND studio_id = current_studio() AND one_time_id = $1 AND email = $2 AND role = $3
    AND used_at IS NULL);

-- name: RenewInvitation :exec
UPDATE one_time SET token_hash = $2 WHERE kind = 'invitation' AND studio_id = current_studio() AND one_time_id = $1 AND used_at IS NULL;

-- name: OneTimeByToken :one
SELECT * FROM one_time WHERE token_hash = $1;

-- name: LockOneTime :one
SELECT * FROM one_time WHERE token_hash = $1 FOR UPDATE;

-- name: UseOneTime :execrows
UPDATE one_time SET used_at = $2 WHERE token_hash = $1 AND used_at IS NULL;

-- name: Invitations :many
SELECT * FROM one_time WHERE kind = 'invitation' AND studio_id = current_studio() AND used_at IS NULL AND expires_at > $1 ORDER BY made_at DESC;

-- name: WithdrawInvitation :execrows
DELETE FROM one_time WHERE kind = 'invitation' AND studio_id = current_studio() AND one_time_id = $1 AND used_at IS NULL;

-- name: SpendPasswordLinks :exec
UPDATE one_time SET used_at = $1 WHERE kind = 'password' AND login_id = current_login() AND used_at IS NULL;

-- name: SpendFirstLinks :exec
UPDATE one_time SET used_at = $1 WHERE kind = 'first' AND used_at IS NULL;

-- name: AddLetter :execrows
INSERT INTO letter (letter_id, to_address, subject, says, made_at) VALUES ($1, $2, $3, $4, $5) ON CONFLICT (letter_id) DO NOTHING;

-- name: LetterByID :one
SELECT * FROM letter WHERE letter_id = $1;

-- name: LetterSent :exec
UPDATE letter SET sent_at = $2, says = '', subject = '', to_address = '' WHERE letter_id = $1;

-- name: NoteSecurity :exec
INSERT INTO security_event (studio_id, account_id, what, about, address, happened_at) VALUES (current_studio(), $1, $2, $3, $4, $5);

-- name: SecurityEvents :many
SELECT e.*, coalesce(a.name, '') AS name FROM security_event e LEFT JOIN account a ON a.studio_id = e.studio_id AND a.account_id = e.account_id
WHERE e.studio_id = current_studio() ORDER BY e.event_id DESC LIMIT $1;

-- name: NoteRead :exec
INSERT INTO read_trail (studio_id, client_id, account_id, read_on, what) VALUES (current_studio(), $1, $2, $3, $4)
ON CONFLICT (client_id, read_on, account_id, what) DO UPDATE SET times = read_trail.times + 1;

-- name: ReadTrail :many
SELECT r.read_on, r.what, r.times, a.name FROM read_trail r JOIN account a ON a.studio_id = r.studio_id AND a.account_id = r.account_id
WHERE r.client_id = $1 ORDER BY r.read_on DESC, a.name, r.what LIMIT 60;
