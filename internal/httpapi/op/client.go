package op

import (
	"context"
	"time"

	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/effort"
	"musculus/internal/core/measure"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/week"
	"musculus/internal/store"
)

// ClientInput is a client in an address.
type ClientInput struct {
	Client uuid.UUID `path:"client"`
}

// Trainee is what the core needs of a client.
func (s *Server) Trainee(c *store.Client) (*week.Trainee, error) {
	y, err := s.Yardstick(c.Dossier.Body())
	if err != nil {
		return nil, err
	}
	memo, err := s.memos.Of(context.Background(), memoKey{y, StanceKey(c.Stance)}, func(context.Context) (*week.Memo, error) {
		return week.NewMemo(y, c.Stance), nil
	})
	return &week.Trainee{Yardstick: y, Room: c.Room(), Caps: s.caps(c), Stance: c.Stance, Fence: s.Fence(c), Memo: memo,
		Prefer: c.Prefer}, err
}

// Informed is the trainee with what her log says of each series.
func (s *Server) Informed(ctx context.Context, tx *store.Tx, c *store.Client) (*week.Trainee, error) {
	t, err := s.Trainee(c)
	if err == nil { // a client back after longer is another one
		t.Own, err = tx.Own(ctx, c.ID, s.Now(), Movements(ctx))
	}
	return t, err
}

// Blocked says why a client may not train today, "" if she may.
func (s *Server) Blocked(c *store.Client) string {
	if c == nil {
		return ""
	}
	if standing := c.Standing(s.DayOf(c)); !standing.MayTrain() {
		return standing.Heading()
	}
	return ""
}

// caps is what a client's doses may not go beyond today.
func (s *Server) caps(c *store.Client) person.Caps {
	standing := c.Standing(s.DayOf(c))
	return person.CapsOf(standing.Caps)
}

// Fence is what keeps a client from set-ups today; nil without a client.
func (s *Server) Fence(c *store.Client) *person.Fence {
	if c == nil {
		return nil
	}
	return &person.Fence{Scores: person.ScoresOf(c.Joints), Mobility: c.Dossier.Mobility, Caps: s.caps(c), Overrides: c.Overrides}
}

// Day is today as the core counts.
func (s *Server) Day(ctx context.Context) day.Day { return day.At(s.Now().In(store.ZoneOf(ctx))) }

// DayOf is today where a client trains.
func (s *Server) DayOf(c *store.Client) day.Day { return day.At(s.Now().In(c.Zone)) }

// DateWords tells a moment by its day: "25 November 2026".
func DateWords(t time.Time) string { return t.Format("2 January 2006") }

// Ago tells a day against today.
func (s *Server) Ago(ctx context.Context, on day.Day) string {
	return on.FromToday(s.Day(ctx))
}

// ClientOf reads a client of the studio; nil without an id.
func (s *Server) ClientOf(ctx context.Context, id *uuid.UUID) (*store.Client, error) {
	if id == nil {
		return nil, nil
	}
	var c store.Client
	err := s.InStudio(ctx, func(tx *store.Tx, _ store.Account) (err error) {
		c, err = tx.Client(ctx, *id)
		return err
	})
	return &c, err
}

// WayFor is the way to hold a set-up for which a client's room has everything.
func WayFor(c *store.Client, set movement.SetUp) (movement.SetUp, bool) {
	if c == nil || len(c.Rooms) == 0 {
		return set, false
	}
	return c.Room().Way(set)
}

// Lacks lists what a client’s room has not for a set-up; nothing without a client.
func Lacks(c *store.Client, set movement.SetUp) []string {
	if c == nil {
		return []string{}
	}
	return append([]string{}, c.Room().Missing(set)...)
}

// Measurings are a client's measuring sessions as far as they may be seen.
func (s *Server) Measurings(ctx context.Context, tx *store.Tx, c *store.Client) ([]store.Measuring, error) {
	if c.Dossier.MayMeasure(s.DayOf(c)) != "" {
		return nil, nil
	}
	return tx.Measurings(ctx, c.ID)
}

// SessionsOf are what was measured, without who kept it.
func SessionsOf(kept []store.Measuring) []measure.Session {
	out := make([]measure.Session, len(kept))
	for i, k := range kept {
		out[i] = k.Session
	}
	return out
}

// Offered says what may be offered to a client: what the room has, unless any
// room will do, and nothing that is to be avoided.
func (s *Server) Offered(c *store.Client, anyRoom bool) func(movement.SetUp, *effort.Profile) bool {
	fence := s.Fence(c)
	return func(o movement.SetUp, p *effort.Profile) bool {
		v := fence.Judge(o, p)
		return !v.Barred() && (anyRoom || len(Lacks(c, o)) == 0)
	}
}
