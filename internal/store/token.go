package store

import (
	"crypto/rand"
	"crypto/sha256"
	"encoding/hex"
)

// NewToken makes a token nobody can guess.
func NewToken() string { return rand.Text() }

// HashToken is what a token is known by: who has the database has no token.
func HashToken(token string) string {
	sum := sha256.Sum256([]byte(token))
	return hex.EncodeToString(sum[:])
}
