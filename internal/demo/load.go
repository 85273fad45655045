package demo

import (
	"context"
	"errors"
	"fmt"
	"math/rand/v2"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"musculus/internal/core/day"
	"musculus/internal/core/dose"
	"musculus/internal/core/entry"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/store"
)

// SignIn is one demo account.
type SignIn struct {
	Name, Email, Password string
	Role                  store.Role
}

// SignIns are the demo's accounts.
var SignIns = []SignIn{
	{"Wren Adeyemi-Holt", "wren@saltmarsh.example", "sleeveless in winter", store.Owner},
	{"Jory Pell", "jory@saltmarsh.example", "counting the sets", store.Assistant},
}

// id makes the same id for the same thing in every demo, so that addresses stay.
func id(parts ...any) uuid.UUID {
	return uuid.NewSHA1(uuid.NameSpaceOID, []byte("saltmarsh/"+fmt.Sprint(parts...)))
}

// Studio is the demo studio's id.
var Studio = id("studio")

// ClientID is the id of a demo client by name.
func ClientID(name string) uuid.UUID { return id("client", name) }

// SessionID is the id of a demo client's planned session.
func SessionID(name string) uuid.UUID { return id("session", name) }

// Load fills an empty database with the demo studio, dated around now; a
// database that has it already is left alone.
func Load(ctx context.Context, s *store.Store, now time.Time) error {
	return s.In(ctx, Studio, func(tx *store.Tx) error {
		if _, err := tx.StudioName(ctx); !errors.Is(err, pgx.ErrNoRows) {
			return err
		}
		if err := tx.AddStudio(ctx, Studio, "The Saltmarsh Players"); err != nil {
			return err
		}
		for _, a := range SignIns {
			if err := tx.AddAccount(ctx, store.Account{ID: id("account", a.Email), Email: a.Email, Name: a.Name, Role: a.Role},
				a.Password); err != nil {
				return err
			}
		}
		for _, r := range []*person.Room{&sailLoft, &wagon, &digs} {
			if err := tx.AddRoom(ctx, id("room", r.Name), *r); err != nil {
				return err
			}
		}
		today := time.Date(now.Year(), now.Month(), now.Day(), 0, 0, 0, 0, time.UTC)
		for i := range players {
			if err := load(ctx, tx, &players[i], today); err != nil {
				return fmt.Errorf("%s: %w", players[i].name, err)
			}
		}
		return nil
	})
}

func load(ctx context.Context, tx *store.Tx, p *demoClient, today time.Time) error {
	client := ClientID(p.name)
	on := day.At(today)
	coach, assistant := id("account", SignIns[0].Email), id("account", SignIns[1].Email)
	if err := loadDossier(ctx, tx, p, client, day.At(today), coach, assistant); err != nil {
		return err
	}
	planned := p.planned(SessionID(p.name), client, p.session, on+day.Day(p.inDays), 0)
	if err := tx.AddSession(ctx, planned, coach, id("write", p.name), movement.Shipped); err != nil {
		return err
	}
	for i, more := range p.also {
		other := *p
		other.slots = more.slots
		s := other.planned(id("session", p.name, "also", i), client, more.session, on+day.Day(more.inDays), -1-i)
		if err := tx.AddSession(ctx, s, coach, id("write", p.name, "also", i), movement.Shipped); err != nil {
			return err
		}
	}
	for _, ago := range p.loggedDaysAgo {
		done := p.planned(id("session", p.name, ago), client, p.session, on-day.Day(ago), ago)
		if err := tx.AddSession(ctx, done, coach, id("write", p.name, ago), movement.Shipped); err != nil {
			return err
		}
		if err := logSession(ctx, tx, p, done, ago, assistant); err != nil {
			return err
		}
	}
	return nil
}

// planned makes a session; each has slot ids of its own.
func (p *demoClient) planned(session, client uuid.UUID, name string, on day.Day, ago int) store.Session {
	out := store.Session{
		ClientID: client,
		Planned:  plan.Planned{ID: session, Name: name, On: on, Session: plan.Session{WarmUpMin: p.warmUp}},
	}
	for i, slot := range p.slots {
		d := slot.dose
		set := slot.setUp()
		rack := dose.RackOf(set, p.rooms[0], p.body.BodyMass)
		d.Load = dose.Carried(rack, rack.Carry.PerHand(slot.whole, rack.Rigging))
		one := plan.Of(set, d)
		one.ID, one.Rows[0].ID, one.Cues = id("slot", p.name, ago, i), id("row", p.name, ago, i), slot.cues
		if p.rightBetter > 0 && set.ArmsInTurn() == 2 { // the smaller arm leads
			one.Starts = plan.StartsLeft
		}
		out.Slots = append(out.Slots, one)
	}
	return out
}

func (s *planned) setUp() movement.SetUp {
	set, err := movement.Shipped.Get(s.movement).SetUp(s.settings)
	if err != nil {
		panic(err) // the demo's own data; its test builds every slot
	}
	return set
}

// logSession logs an earlier session: reps that fall from set to set with a
// little noise, the right arm ahead where it is.
func logSession(ctx context.Context, tx *store.Tx, p *demoClient, session store.Session, ago int, by uuid.UUID) error {
	r := rand.New(rand.NewPCG(uint64(ago), uint64(len(p.name))))
	at := time.Unix(int64(session.On)*24*60*60, 0).UTC().Add(17 * time.Hour)
	floor := plan.Floor{Room: p.rooms[0], BodyMass: p.body.BodyMass}
	for i, slot := range session.Slots {
		set, first, hand := slot.SetUp, slot.First(), session.Hand(i, 0, &floor)
		sides := []entry.Side{entry.BothSides}
		if set.ArmsInTurn() == 2 {
			sides = []entry.Side{entry.Left, entry.Right}
		}
		for n := 1; n <= first.Sets; n++ {
			for _, side := range sides {
				reps := first.RepsHigh - ago/5 - (n - 1) + r.IntN(2)
				if side == entry.Left {
					reps -= p.rightBetter
				}
				at = at.Add(2 * time.Minute)
				note := ""
				if ago == 7 && i == 0 && n == first.Sets && side != entry.Right {
					note = "last rep slow, elbow stayed put"
				}
				e := entry.Entry{
					ID:        id("entry", p.name, ago, i, n, side),
					ClientID:  session.ClientID,
					SessionID: session.ID,
					SlotID:    slot.ID,
					SetUp:     set,
					Side:      side,
					SetNo:     n,
					Reps:      max(reps, 4),
					LoadKg:    *hand,
					Reserve:   first.Reserve,
					Note:      note,
					DoneAt:    at,
				}
				if err := tx.AddEntry(ctx, e, by); err != nil {
					return err
				}
			}
		}
	}
	return nil
}
