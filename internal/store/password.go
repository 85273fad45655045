package store

import (
	"crypto/rand"
	"crypto/subtle"
	"encoding/base64"
	"fmt"
	"strings"

	"golang.org/x/crypto/argon2"
)

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

// hashCost is how a hash begins that was made as they are made now.
var hashCost = fmt.Sprintf("argon2id$%d$%d$%d$", hashMemoryKiB, hashPasses, hashThreads)

// HashPassword hashes with argon2id and a fresh salt.
func HashPassword(password string) string {
	salt := make([]byte, 16)
	_, _ = rand.Read(salt) // never fails
	return hashCost + base64.RawStdEncoding.EncodeToString(salt) + "$" +
		base64.RawStdEncoding.EncodeToString(derive(password, salt, hashMemoryKiB, hashPasses, hashThreads))
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
