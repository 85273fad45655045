package demo

import (
	"context"
	"errors"
	"fmt"
	"math/rand/v2"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/week"
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
			if err := tx.AddAccount(ctx, store.Account{ID: id("account", a.Email), Email: a.Email, Name: a.Name, Role: a.Role}, a.Password); err != nil {
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
	coach, assistant := id("account", SignIns[0].Email), id("account", SignIns[1].Email)
	if err := loadDossier(ctx, tx, p, client, store.DayOf(today), coach, assistant); err != nil {
		return err
	}
	planned := store.Session{ID: SessionID(p.name), ClientID: client, Name: p.session, PlannedOn: today.AddDate(0, 0, p.inDays), Content: p.content(0)}
	if err := tx.AddSession(ctx, planned, coach, id("write", p.name)); err != nil {
		return err
	}
	for i, more := range p.also {
		other := *p
		other.slots = more.slots
		s := store.Session{ID: id("session", p.name, "also", i), ClientID: client, Name: more.session, PlannedOn: today.AddDate(0, 0, more.inDays), Content: other.content(-1 - i)}
		if err := tx.AddSession(ctx, s, coach, id("write", p.name, "also", i)); err != nil {
			return err
		}
	}
	for _, ago := range p.loggedDaysAgo {
		done := store.Session{ID: id("session", p.name, ago), ClientID: client, Name: p.session, PlannedOn: today.AddDate(0, 0, -ago), Content: p.content(ago)}
		if err := tx.AddSession(ctx, done, coach, id("write", p.name, ago)); err != nil {
			return err
		}
		if err := logSession(ctx, tx, p, done, ago, assistant); err != nil {
			return err
		}
	}
	return nil
}

// content makes the session's slots; each session has slot ids of its own.
func (p *demoClient) content(ago int) store.Content {
	out := store.Content{WarmUpMin: p.warmUp}
	for i, slot := range p.slots {
		d := slot.dose
		set := slot.setUp()
		perHand := person.CarryOf(set).PerHand(slot.whole, p.rooms[0].Rigging(p.body.BodyMass))
		d.LoadKg = &perHand
		cues := slot.cues
		if cues == nil {
			cues = []string{}
		}
		starts := week.StartsInTurn
		if p.rightBetter > 0 && set.ArmsInTurn() == 2 { // the smaller arm leads
			starts = week.StartsLeft
		}
		out.Slots = append(out.Slots, store.PlannedSlot{Starts: starts, ID: id("slot", p.name, ago, i), Movement: slot.movement, Settings: slot.settings, Dose: d, Cues: cues})
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
	at := session.PlannedOn.Add(17 * time.Hour)
	for i, slot := range session.Content.Slots {
		set := p.slots[i].setUp()
		sides := []store.Side{store.BothSides}
		if set.ArmsInTurn() == 2 {
			sides = []store.Side{store.Left, store.Right}
		}
		for n := 1; n <= slot.Dose.Sets; n++ {
			for _, side := range sides {
				reps := slot.Dose.RepsHigh - ago/5 - (n - 1) + r.IntN(2)
				if side == store.Left {
					reps -= p.rightBetter
				}
				at = at.Add(2 * time.Minute)
				note := ""
				if ago == 7 && i == 0 && n == slot.Dose.Sets && side != store.Right {
					note = "last rep slow, elbow stayed put"
				}
				e := store.Entry{ID: id("entry", p.name, ago, i, n, side), ClientID: session.ClientID, SessionID: session.ID, SlotID: slot.ID, SetUp: set,
					Side: side, SetNo: n, Reps: max(reps, 4), LoadKg: *slot.Dose.LoadKg, Reserve: slot.Dose.Reserve, Note: note, DoneAt: at}
				if err := tx.AddEntry(ctx, e, by); err != nil {
					return err
				}
			}
		}
	}
	return nil
}
