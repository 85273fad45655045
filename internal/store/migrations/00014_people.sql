-- +goose Up
-- People: somebody signs in with a login of her own and has an account in each studio
-- she belongs to. What a login holds is nobody else's: it is seen only by itself, by
-- whoever brings its address to sign in, and by the studios it belongs to.

-- +goose StatementBegin
CREATE FUNCTION current_login() RETURNS uuid LANGUAGE sql STABLE AS
$$ SELECT nullif(current_setting('musculus.login', true), '')::uuid $$;
-- +goose StatementEnd

CREATE TABLE login (
    login_id      uuid PRIMARY KEY,
    email         text NOT NULL UNIQUE CHECK (email = lower(email) AND email <> ''),
    password_hash text NOT NULL,
    totp_secret   text NOT NULL DEFAULT '',
    totp_on       boolean NOT NULL DEFAULT false,
    totp_step     bigint NOT NULL DEFAULT 0, -- the last step whose code was used: a code counts once
    units         text NOT NULL DEFAULT 'metric' CHECK (units IN ('metric', 'imperial')),
    dates         text NOT NULL DEFAULT 'day_first' CHECK (dates IN ('day_first', 'month_first')),
    made_at       timestamptz NOT NULL DEFAULT now()
);

-- Codes for when the device with the second factor is lost; each opens once.
CREATE TABLE recovery_code (
    login_id  uuid NOT NULL REFERENCES login,
    code_hash text NOT NULL,
    PRIMARY KEY (login_id, code_hash)
);

-- Browsers that have signed in before: strangers' guesses do not shut them out.
CREATE TABLE known_device (
    token_hash text NOT NULL,
    login_id   uuid NOT NULL REFERENCES login, -- several may share a browser
    seen_at    timestamptz NOT NULL,
    PRIMARY KEY (login_id, token_hash)
);

-- One place somebody is signed in at.
CREATE TABLE sign_in (
    sign_in_id uuid PRIMARY KEY,
    login_id   uuid NOT NULL REFERENCES login,
    agent      text NOT NULL, -- the browser, as it calls itself
    own_device boolean NOT NULL,
    made_at    timestamptz NOT NULL,
    seen_at    timestamptz NOT NULL,
    ended_at   timestamptz
);
CREATE INDEX ON sign_in (login_id);

-- Guesses that failed lately, by what was guessed at and by where from; keys are
-- hashes, so that this says nothing of anybody.
CREATE TABLE attempt (
    key      text PRIMARY KEY,
    failures int NOT NULL,
    since    timestamptz NOT NULL,
    next_at  timestamptz NOT NULL -- before which none is tried
);

-- An account is a login's place in a studio.
ALTER TABLE account ADD COLUMN login_id uuid REFERENCES login;
ALTER TABLE account ADD COLUMN disabled_at timestamptz;
ALTER TABLE account NO FORCE ROW LEVEL SECURITY;
INSERT INTO login (login_id, email, password_hash) SELECT account_id, email, password_hash FROM account;
UPDATE account SET login_id = account_id;
ALTER TABLE account FORCE ROW LEVEL SECURITY;
ALTER TABLE account ALTER COLUMN login_id SET NOT NULL;
DROP POLICY signing_in ON account;
ALTER TABLE account DROP COLUMN email, DROP COLUMN password_hash;
ALTER TABLE account ADD UNIQUE (studio_id, login_id);
CREATE INDEX ON account (login_id);
ALTER TABLE studio ADD COLUMN second_factor boolean NOT NULL DEFAULT false; -- asked of everybody in it
ALTER TABLE client ADD COLUMN coach_id uuid; -- whose client it is
ALTER TABLE client ADD FOREIGN KEY (studio_id, coach_id) REFERENCES account (studio_id, account_id);
ALTER TABLE client NO FORCE ROW LEVEL SECURITY;
ALTER TABLE account NO FORCE ROW LEVEL SECURITY;
UPDATE client SET coach_id = (SELECT a.account_id FROM account a WHERE a.studio_id = client.studio_id AND a.role <> 'assistant'
    ORDER BY a.role = 'owner' DESC, a.account_id LIMIT 1);
ALTER TABLE client FORCE ROW LEVEL SECURITY;
ALTER TABLE account FORCE ROW LEVEL SECURITY;

-- What is opened once by whoever has its token: an invitation into a studio, a new
-- password, the first owner of an installation. The token itself is not kept.
CREATE TABLE one_time (
    one_time_id uuid PRIMARY KEY,
    token_hash  text NOT NULL UNIQUE,
    kind        text NOT NULL CHECK (kind IN ('invitation', 'password', 'first')),
    studio_id   uuid REFERENCES studio,
    login_id    uuid REFERENCES login,
    email       text NOT NULL,
    role        text NOT NULL CHECK (role IN ('', 'owner', 'coach', 'assistant')),
    made_by     uuid,
    made_at     timestamptz NOT NULL,
    expires_at  timestamptz NOT NULL,
    used_at     timestamptz,
    CHECK ((kind = 'invitation') = (studio_id IS NOT NULL) AND (kind = 'password') = (login_id IS NOT NULL)),
    FOREIGN KEY (studio_id, made_by) REFERENCES account (studio_id, account_id)
);
CREATE INDEX ON one_time (studio_id);
CREATE INDEX ON one_time (login_id);

-- Letters on their way. What they say is taken out once they have left.
CREATE TABLE letter (
    letter_id  uuid PRIMARY KEY,
    to_address text NOT NULL,
    subject    text NOT NULL,
    says       text NOT NULL,
    made_at    timestamptz NOT NULL,
    sent_at    timestamptz
);

-- What concerns a studio's safety: who signed in, failed, was let in, shut out, made
-- links, took data out. Of a client no more than her id, and nothing of her health.
CREATE TABLE security_event (
    event_id    bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    studio_id   uuid NOT NULL REFERENCES studio,
    account_id  uuid,
    what        text NOT NULL,
    about       text NOT NULL,
    address     text NOT NULL, -- where from
    happened_at timestamptz NOT NULL,
    FOREIGN KEY (studio_id, account_id) REFERENCES account (studio_id, account_id)
);
CREATE INDEX ON security_event (studio_id, event_id);

-- Who opened what of a client, a line a day.
CREATE TABLE read_trail (
    studio_id  uuid NOT NULL REFERENCES studio,
    client_id  uuid NOT NULL,
    account_id uuid NOT NULL,
    read_on    date NOT NULL,
    what       text NOT NULL CHECK (what IN ('dossier', 'photos', 'export')),
    times      int NOT NULL DEFAULT 1,
    PRIMARY KEY (client_id, read_on, account_id, what),
    FOREIGN KEY (studio_id, client_id) REFERENCES client (studio_id, client_id),
    FOREIGN KEY (studio_id, account_id) REFERENCES account (studio_id, account_id)
);

-- +goose StatementBegin
DO $$
DECLARE t text;
BEGIN
    FOREACH t IN ARRAY ARRAY['security_event', 'read_trail'] LOOP
        EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', t);
        EXECUTE format('ALTER TABLE %I FORCE ROW LEVEL SECURITY', t);
        EXECUTE format('CREATE POLICY own_studio ON %I USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio())', t);
    END LOOP;
    FOREACH t IN ARRAY ARRAY['login', 'recovery_code', 'known_device', 'sign_in'] LOOP
        EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', t);
        EXECUTE format('ALTER TABLE %I FORCE ROW LEVEL SECURITY', t);
        EXECUTE format('CREATE POLICY own_login ON %I USING (login_id = current_login()) WITH CHECK (login_id = current_login())', t);
    END LOOP;
END $$;
-- +goose StatementEnd
ALTER TABLE one_time ENABLE ROW LEVEL SECURITY;
ALTER TABLE one_time FORCE ROW LEVEL SECURITY;

-- Signing in finds one login by its address, and the studios it belongs to, before any of them is known.
CREATE POLICY signing_in ON login FOR SELECT USING (email = nullif(current_setting('musculus.signing_in', true), ''));
CREATE POLICY of_login ON account FOR SELECT USING (login_id = current_login());
CREATE POLICY of_login ON studio FOR SELECT USING (EXISTS (SELECT 1 FROM account a WHERE a.studio_id = studio.studio_id AND a.login_id = current_login()));
-- A studio sees the addresses of its own people, and when they were here.
CREATE POLICY of_studio ON login FOR SELECT USING (EXISTS (SELECT 1 FROM account a WHERE a.login_id = login.login_id AND a.studio_id = current_studio()));
CREATE POLICY of_studio ON sign_in FOR SELECT USING (EXISTS (SELECT 1 FROM account a WHERE a.login_id = sign_in.login_id AND a.studio_id = current_studio()));

CREATE POLICY by_token ON one_time USING (token_hash = nullif(current_setting('musculus.token', true), ''));
CREATE POLICY own_studio ON one_time USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio());
CREATE POLICY own_login ON one_time USING (login_id = current_login()) WITH CHECK (login_id = current_login());
-- The first owner's is made, and looked for, by the installation itself.
CREATE POLICY first_owner ON one_time USING (kind = 'first' AND current_setting('musculus.first', true) = 'on')
    WITH CHECK (kind = 'first' AND current_setting('musculus.first', true) = 'on');

-- +goose Down
SELECT 1 / 0; -- who belongs to two studios has no place in the old columns
