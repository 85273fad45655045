package store

import (
	"context"
	"crypto/rand"
	"crypto/subtle"
	"encoding/base64"
	"fmt"
	"strings"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"golang.org/x/crypto/argon2"

	"musculus/internal/store/db"
)

// Role says what an account may do.
type Role string

// The roles.
const (
	Owner     Role = "owner"
	Coach     Role = "coach"
	Assistant Role = "assistant"
)

// Account is someone who signs in.
type Account struct {
	ID     uuid.UUID
	Studio uuid.UUID
	Email  string
	Name   string
	Role   Role
	hash   string
}

// AddStudio makes a studio; call it inside its own id.
func (t *Tx) AddStudio(ctx context.Context, id uuid.UUID, name string) error {
	return t.q.AddStudio(ctx, db.AddStudioParams{StudioID: id, Name: name})
}

// StudioName returns the current studio's name.
func (t *Tx) StudioName(ctx context.Context) (string, error) {
	s, err := t.q.GetStudio(ctx)
	return s.Name, err
}

// AddAccount adds an account to the current studio.
func (t *Tx) AddAccount(ctx context.Context, a Account, password string) error {
	return t.q.AddAccount(
		ctx,
		db.AddAccountParams{
			AccountID:    a.ID,
			Email:        strings.ToLower(a.Email),
			Name:         a.Name,
			Role:         string(a.Role),
			PasswordHash: HashPassword(password),
		},
	)
}

// Account returns an account of the current studio.
func (t *Tx) Account(ctx context.Context, id uuid.UUID) (Account, error) {
	a, err := t.q.AccountByID(ctx, id)
	return account(a), err
}

func account(a db.Account) Account {
	return Account{a.AccountID, a.StudioID, a.Email, a.Name, Role(a.Role), a.PasswordHash}
}

// SignIn returns the account of an address and password, ErrNotFound for a
// wrong one of either; both take the same time.
func (s *Store) SignIn(ctx context.Context, email, password string) (Account, error) {
	email = strings.ToLower(strings.TrimSpace(email))
	var a Account
	err := classify(pgx.BeginFunc(ctx, s.Pool, func(tx pgx.Tx) error {
		if _, err := tx.Exec(ctx, "select set_config('musculus.signing_in', $1, true)", email); err != nil {
			return err
		}
		row, err := db.New(tx).AccountByEmail(ctx, email)
		a = account(row)
		return err
	}))
	if err == ErrNotFound {
		checkPassword(password, unknownHash)
	}
	if err != nil {
		return Account{}, err
	}
	if !checkPassword(password, a.hash) {
		return Account{}, ErrNotFound
	}
	return a, nil
}

// Cost of a password hash: argon2id with 19 MiB and two passes (the lower of
// the two settings that RFC 9106's successors recommend for servers).
const (
	hashMemoryKiB = 19 * 1024
	hashPasses    = 2
	hashThreads   = 1
	hashBytes     = 32
)

// unknownHash is checked when there is no account, so that it takes as long.
var unknownHash = HashPassword(rand.Text())

// HashPassword hashes with argon2id and a fresh salt.
func HashPassword(password string) string {
	salt := make([]byte, 16)
	_, _ = rand.Read(salt) // never fails
	return fmt.Sprintf(
		"argon2id$%d$%d$%d$%s$%s",
		hashMemoryKiB,
		hashPasses,
		hashThreads,
		base64.RawStdEncoding.EncodeToString(salt),
		base64.RawStdEncoding.EncodeToString(derive(password, salt, hashMemoryKiB, hashPasses, hashThreads)),
	)
}

func derive(password string, salt []byte, memory, passes uint32, threads uint8) []byte {
	return argon2.IDKey([]byte(password), salt, passes, memory, threads, hashBytes)
}

func checkPassword(password, hash string) bool {
	parts := strings.Split(hash, "$")
	if len(parts) != 6 || parts[0] != "argon2id" {
		return false
	}
	var memory, passes uint32
	var threads uint8
	if _, err := fmt.Sscan(parts[1]+" "+parts[2]+" "+parts[3], &memory, &passes, &threads); err != nil {
		return false
	}
	salt, err := base64.RawStdEncoding.DecodeString(parts[4])
	if err != nil {
		return false
	}
	want, err := base64.RawStdEncoding.DecodeString(parts[5])
	if err != nil {
		return false
	}
	return subtle.ConstantTimeCompare(want, derive(password, salt, memory, passes, threads)) == 1
}
