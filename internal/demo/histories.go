package demo

import (
	"context"
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"time"

	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/decide"
	"musculus/internal/core/dose"
	"musculus/internal/core/entry"
	"musculus/internal/core/log"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/series"
	"musculus/internal/store"
)

// past is how a player trained before the weeks that the plan itself brings.
type past struct {
	weeks   int                // back
	missed  []int              // weeks ago in which nothing was done
	grows   float64            // a week, as a part
	by      map[string]float64 // the same, by movement
	twice   bool               // a week
	apart   float64            // reps the right arm was ahead at the beginning
	instead map[string]swap    // by movement: what was done before it
}

// swap is another set-up that was done until some weeks ago.
type swap struct {
	movement string
	settings settings
	until    int // weeks ago
	whole    float64
}

// scatter is how much a session scatters, as a part.
const scatter = 0.018

var pasts = map[string]past{
	"Tobias Quill":       {weeks: 14, grows: 0.006, apart: 4},
	"Dario Vance":        {weeks: 15, grows: 0.007, instead: map[string]swap{"lying_bar": {"lying_bar", nil, 9, 30}}},
	"Noor Halloran":      {weeks: 14, missed: []int{1, 2, 3}, grows: 0.004},
	"Marguerite Oseland": {weeks: 10, missed: []int{4, 5}, grows: 0.012},
	"Aurelio Finch": {
		weeks: 16,
		twice: true,
		grows: 0.006,
		by:    map[string]float64{"curl_pad_bar": 0, "press_bench_close": 0.011},
	},
	"Ines Karlova":  {weeks: 12, grows: 0.005},
	"Bettina Groos": {weeks: 10, grows: 0.003},
}

// Histories gives the players ten to sixteen weeks of training before now: a plateau, a rise, a
// pain that led to a swap, a missed fortnight, a lagging side that catches up, and a decision
// whose outcome is in. What is there already is left alone.
func Histories(ctx context.Context, s *store.Store, now time.Time) error {
	return s.In(ctx, Studio, func(tx *store.Tx) error {
		before, err := tx.Sessions(ctx, ClientID("Ines Karlova"), movement.Shipped)
		if err != nil || len(before) > 1 {
			return err
		}
		today := day.At(now)
		for i := range players {
			p := &players[i]
			if h, ok := pasts[p.name]; ok {
				if err := trained(ctx, tx, p, &h, today); err != nil {
					return fmt.Errorf("%s: %w", p.name, err)
				}
			}
		}
		if err := decided(ctx, tx, today); err != nil {
			return err
		}
		if err := laid(ctx, tx, today); err != nil {
			return err
		}
		return paired(ctx, tx, today)
	})
}

// trained logs the weeks before those that the plan brings, one session a week.
func trained(ctx context.Context, tx *store.Tx, p *demoClient, h *past, today day.Day) error {
	coach, assistant := id("account", SignIns[0].Email), id("account", SignIns[1].Email)
	r := rand.New(rand.NewPCG(16, uint64(len(p.name))))
	for k := 2 * h.weeks; k >= 1; k-- {
		ago := (k + 1) / 2 // weeks
		on := today - day.Day(7*ago) + day.Day(p.inDays)
		if k%2 == 1 {
			if on += 3; !h.twice {
				continue
			}
		}
		if on >= today-day.Day(p.lastLogged()+3) || slices.Contains(h.missed, ago) {
			continue
		}
		session := p.planned(id("session", p.name, "past", k), ClientID(p.name), p.session, on, 1000+k)
		floor := plan.Floor{Room: p.rooms[0], BodyMass: p.body.BodyMass}
		for i := range session.Slots {
			slot := &session.Slots[i]
			whole := p.slots[i].whole
			grows, ok := h.by[p.slots[i].movement]
			if !ok {
				grows = h.grows
			}
			if x, ok := h.instead[p.slots[i].movement]; ok && ago > x.until {
				set, err := movement.Shipped.Get(x.movement).SetUp(x.settings)
				if err != nil {
					return err
				}
				slot.SetUp, whole = set, x.whole
			}
			first := slot.First()
			rack := floor.Rack(slot.SetUp)
			end, _ := series.Within(rack.Carry.PerHand(whole, rack.Rigging), first.RepsHigh-1, first.Reserve)
			first.Load = dose.Carried(
				rack,
				loadAt(&rack, end*math.Exp(-grows*float64(ago)), first, rack.Carry.PerHand(whole, rack.Rigging)),
			)
			slot.Rows[0] = *first
		}
		if err := tx.AddSession(ctx, session, coach, id("write", p.name, "past", k), movement.Shipped); err != nil {
			return err
		}
		if err := logPast(ctx, tx, p, h, session, k, r, assistant); err != nil {
			return err
		}
	}
	return nil
}

// lastLogged is how many days ago the first session that the plan brings was.
func (p *demoClient) lastLogged() int {
	most := 0
	for _, ago := range p.loggedDaysAgo {
		most = max(most, ago)
	}
	return most
}

// loadAt is the heaviest mark that was good for the band's low end, no heavier than today's.
func loadAt(rack *dose.Rack, e1rm float64, r *plan.Row, most float64) float64 {
	best := most
	for k := len(rack.Steps) - 1; k >= 0; k-- {
		hand := rack.Carry.PerHand(rack.Steps[k], rack.Rigging)
		if hand > most+1e-9 {
			continue
		}
		if best = hand; series.RepsAt(e1rm, hand, r.Reserve) >= r.RepsLow {
			break
		}
	}
	return best
}

// logPast logs a session: what the load was good for that week, a rep less from the third set on.
func logPast(
	ctx context.Context,
	tx *store.Tx,
	p *demoClient,
	h *past,
	session store.Session,
	k int,
	r *rand.Rand,
	by uuid.UUID,
) error {
	ago := (k + 1) / 2
	at := time.Unix(int64(session.On)*24*60*60, 0).UTC().Add(17 * time.Hour)
	floor := plan.Floor{Room: p.rooms[0], BodyMass: p.body.BodyMass}
	for i := range session.Slots {
		slot := &session.Slots[i]
		first, hand := slot.First(), session.Hand(i, 0, &floor)
		grows, ok := h.by[p.slots[i].movement]
		if !ok {
			grows = h.grows
		}
		rack := floor.Rack(slot.SetUp)
		whole := p.slots[i].whole
		if x, ok := h.instead[p.slots[i].movement]; ok && ago > x.until {
			whole = x.whole
		}
		end, _ := series.Within(rack.Carry.PerHand(whole, rack.Rigging), first.RepsHigh-1, first.Reserve)
		e1rm := end * math.Exp(-grows*float64(ago)+scatter*r.NormFloat64())
		for n := 1; n <= first.Sets; n++ {
			for _, side := range log.Sides(slot) {
				reps := max(4, series.RepsAt(e1rm, *hand, first.Reserve)) - max(0, n-2)
				if side == entry.Left {
					reps -= int(
						math.Round(
							float64(p.rightBetter) + (h.apart-float64(p.rightBetter))*max(0, float64(ago-2))/float64(h.weeks),
						),
					)
				}
				at = at.Add(2 * time.Minute)
				e := entry.Entry{
					ID:        id("entry", p.name, "past", k, i, n, side),
					ClientID:  session.ClientID,
					SessionID: session.ID,
					SlotID:    slot.ID,
					SetUp:     slot.SetUp,
					Side:      side,
					SetNo:     n,
					Reps:      max(reps, 3),
					LoadKg:    *hand,
					Reserve:   first.Reserve,
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

// decided are decisions of the past: Dario's swap after two sore sessions, Aurelio's press that
// went up.
func decided(ctx context.Context, tx *store.Tx, today day.Day) error {
	coach := id("account", SignIns[0].Email)
	dario := ClientID("Dario Vance")
	straight := movement.Shipped.Get("lying_bar").Default()
	cambered, err := movement.Shipped.Get("lying_bar").SetUp(word(movement.Implement, "bar_cambered"))
	if err != nil {
		return err
	}
	for k, score := range []int{4, 5} {
		on := today - day.Day(77-7*k)
		report := person.JointReport{
			On:       on,
			Joint:    movement.ElbowBack,
			Side:     person.Right,
			Score:    score,
			Provokes: straight.Title(),
			In:       id("session", "Dario Vance", "past", 2*(11-k)).String(),
		}
		at := time.Unix(int64(on)*24*60*60, 0).UTC().Add(18 * time.Hour)
		if err := tx.AddJointReport(ctx, id("sore", k), dario, report, id("account", SignIns[1].Email), at); err != nil {
			return err
		}
	}
	for k, score := range []int{2, 1, 0} { // it eased since
		on := today - day.Day(56-14*k)
		report := person.JointReport{
			On:       on,
			Joint:    movement.ElbowBack,
			Side:     person.Right,
			Score:    score,
			Provokes: cambered.Title(),
		}
		at := time.Unix(int64(on)*24*60*60, 0).UTC().Add(18 * time.Hour)
		if err := tx.AddJointReport(ctx, id("eased", k), dario, report, id("account", SignIns[1].Email), at); err != nil {
			return err
		}
	}
	swapped := store.Decision{ID: id("decision", "dario"), Answer: store.Took, On: today - 66, By: coach,
		Decided: store.Decided{Proposal: decide.Proposal{Kind: decide.Change, Series: straight.Key(), Name: straight.Title(),
			Says:  "Take " + cambered.Title() + " instead",
			Why:   []string{"The " + movement.ElbowBack.Words() + " scored over 3 in 2 sessions with it."},
			Steps: decide.Steps{ToID: cambered.Movement.ID, Turned: cambered.Turned()}}}}
	if err := tx.AddDecision(ctx, dario, &swapped); err != nil {
		return err
	}
	press := movement.Shipped.Get("press_bench_close").Default()
	up := store.Decision{ID: id("decision", "aurelio"), Answer: store.Took, On: today - 36, By: coach,
		Decided: store.Decided{Proposal: decide.Proposal{Kind: decide.Heavier, Series: press.Key(), Name: press.Title(),
			Says: "Go up to bar 60 kg", Why: []string{"Every set came to 8 or more with 2 left at bar 57.5 kg."}}}}
	return tx.AddDecision(ctx, ClientID("Aurelio Finch"), &up)
}
