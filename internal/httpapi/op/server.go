package op

import (
	"context"
	"time"

	"github.com/alexedwards/scs/v2"
	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/week"
	"musculus/internal/httpapi/remember"
	"musculus/internal/httpapi/request"
	"musculus/internal/photos"
	"musculus/internal/store"
)

// Server holds what operations share.
type Server struct {
	Store      *store.Store
	Photos     photos.Folder
	Sessions   *scs.SessionManager
	Now        func() time.Time
	Address    string // where people find us, for links in letters
	bodies     *remember.Memory[arm.Body, *effort.Yardstick]
	Post       Post // nil: no letters leave
	signIns    *remember.Memory[uuid.UUID, here]
	trail      *request.Trail
	Catalogues *remember.Memory[uuid.UUID, *Own]
	lastRead   *remember.Memory[uuid.UUID, *Own] // catalogues as they were read last, to be taken again while nothing changed
	memos      *remember.Memory[memoKey, *week.Memo]
	shelves    *remember.Memory[shelfKey, *week.Shelf]
}

// Post takes letters that leave later, once what they are part of is kept.
type Post interface {
	// Send leaves a letter with the transaction.
	Send(ctx context.Context, tx pgx.Tx, l store.Letter, now time.Time) error
}

// New is a server over a store; without a clock it takes the machine's.
func New(s *store.Store, p photos.Folder, now func() time.Time) *Server {
	if now == nil {
		now = time.Now
	}
	return &Server{Store: s, Photos: p, Sessions: scs.New(), Now: now,
		bodies:     remember.New[arm.Body, *effort.Yardstick](mostBodies, 0),
		signIns:    remember.New[uuid.UUID, here](mostSignIns, rememberSignIn),
		trail:      request.NewTrail(),
		Catalogues: remember.New[uuid.UUID, *Own](mostStudios, rememberOwn),
		lastRead:   remember.New[uuid.UUID, *Own](mostStudios, 0),
		memos:      remember.New[memoKey, *week.Memo](mostMemos, 0),
		shelves:    remember.New[shelfKey, *week.Shelf](mostShelves, 0),
	}
}

// InSession runs do with a client of the studio and one of her sessions.
func (s *Server) InSession(
	ctx context.Context,
	at SessionPath,
	do func(*store.Tx, store.Account, *store.Client, store.Session) error,
) error {
	return s.InClient(ctx, at.Client, func(tx *store.Tx, a store.Account, c *store.Client) error {
		kept, err := tx.Session(ctx, at.Client, at.Session, Movements(ctx))
		if err != nil {
			return err
		}
		return do(tx, a, c, kept)
	})
}

// InClient runs do with a client of the studio.
func (s *Server) InClient(ctx context.Context, id uuid.UUID, do func(*store.Tx, store.Account, *store.Client) error) error {
	return s.InStudio(ctx, func(tx *store.Tx, a store.Account) error {
		c, err := tx.Client(ctx, id)
		if err != nil {
			return err
		}
		return do(tx, a, &c)
	})
}

// Showing answers with what is made of what was loaded: nothing is computed while the
// transaction is open.
func Showing[L, V any](ctx context.Context, s *Server, load func(*store.Tx, *L) error, show func(*L) (V, error)) (V, error) {
	var loaded L
	if err := s.InStudio(ctx, func(tx *store.Tx, _ store.Account) error { return load(tx, &loaded) }); err != nil {
		var none V
		return none, err
	}
	v, err := show(&loaded)
	return v, ProblemIf(err)
}

// InStudio runs do in the signed-in account's studio.
func (s *Server) InStudio(ctx context.Context, do func(*store.Tx, store.Account) error) error {
	a := AccountOf(ctx)
	return ProblemIf(s.Store.In(ctx, a.Studio, func(tx *store.Tx) error { return do(tx, a) }))
}
