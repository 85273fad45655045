package store

import (
	"crypto/sha256"
	"time"

	"github.com/google/uuid"
	"github.com/hashicorp/golang-lru/v2/expirable"

	"musculus/internal/core/movement"
)

// read is what was read already and need not be read again while nothing changed: a
// list of two hundred clients is asked for all day, and little of it is new. What is
// in it is shared and never changed.
type read struct {
	clients  *expirable.LRU[Mark, *Client]
	sessions *expirable.LRU[readSession, *Session]
}

// Mark tells contents apart: what has the same mark is the same to the byte.
type Mark [sha256.Size]byte

// readSession is a session as it was saved once. The moment goes with it: an id that
// was erased may come again with its first version.
type readSession struct {
	id      uuid.UUID
	version int
	savedAt int64
	from    *movement.Catalogue // of its set-ups
}

// Both are bounded in number, some ten megabytes, and in time: what is erased leaves
// the memory too.
const (
	mostRead     = 2000
	rememberRead = 10 * time.Minute
)

func newRead() *read {
	return &read{
		clients:  expirable.NewLRU[Mark, *Client](mostRead, nil, rememberRead),
		sessions: expirable.NewLRU[readSession, *Session](mostRead, nil, rememberRead),
	}
}

// markOf is the mark of some texts in their order.
func markOf(parts ...[]byte) (m Mark) {
	h := sha256.New()
	for _, p := range parts {
		var length [8]byte
		for i := range length {
			length[i] = byte(len(p) >> (8 * i))
		}
		h.Write(length[:])
		h.Write(p)
	}
	h.Sum(m[:0])
	return m
}
