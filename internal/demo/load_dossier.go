package demo

import (
	"context"
	"math"
	"math/rand/v2"
	"strings"
	"time"

	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/measure"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/priority"
	"musculus/internal/core/words"
	"musculus/internal/store"
)

// ache is a joint's course: scores by days ago, the oldest first.
type ache struct {
	joint    movement.Joint
	side     person.Side
	provokes string
	scores   [][2]int // days ago, score
}

// tape is what a client's girths did: the left side now, how much more the right
// has, what both gained over the time, cm.
type tape struct {
	relaxed, flexed, forearm, wrist float64 // left, today
	right                           float64 // upper arm, today
	gained, rightGained             float64
	fold                            float64 // triceps skinfold, mm; 0: not taken
	daysAgo                         []int
}

// rated is a pose rating.
type rated struct {
	daysAgo, sure int
	heads         map[string]int
	note          string
}

// tried is a set-up that was tried.
type tried struct {
	daysAgo  int
	movement string
	settings settings
	comfort  int
	felt     string
	outcome  string
	note     string
}

// history is what is known of a client beside the dossier itself.
type history struct {
	screened  []int                     // days ago; none: not screened
	yes       map[string]ago            // questions answered with yes, and how long ago that was cleared
	aches     []ache                    //
	tape      *tape                     //
	rating    *rated                    //
	emphasis  map[string]priority.Level //
	weeks     int                       // how long the emphasis still holds
	answers   map[string]string         // of the present list
	tried     []tried                   //
	overrides map[string]string         //
}

// ago is a clearance: days ago and by whom; 0 days: none.
type ago struct {
	days int
	by   string
}

// usualDays is when people were measured: a fortnight apart, some repeated two or
// three days later, so that the tape's own noise is known.
var usualDays = []int{98, 95, 84, 70, 56, 53, 42, 28, 14, 11}

func loadDossier(ctx context.Context, tx *store.Tx, p *demoClient, client uuid.UUID, today day.Day, coach, assistant uuid.UUID) error {
	d := p.dossier(today)
	d.Weekdays = p.days(today, d.Weekdays)
	d.Name, d.About, d.Minutes = p.name, p.about, p.minutes
	d.StatureM, d.MassKg = p.body.Stature, p.body.BodyMass
	for _, r := range p.rooms {
		d.Rooms = append(d.Rooms, id("room", r.Name).String())
	}
	if wrong := d.Check(today); len(wrong) > 0 {
		return &wrong[0]
	}
	if err := tx.AddClient(ctx, client, d, coach); err != nil {
		return err
	}
	h := &p.history
	for i, daysAgo := range h.screened {
		round := person.Screening{On: today - day.Day(daysAgo), Answers: map[string]person.Answer{}}
		for _, q := range person.Questions {
			a := person.Answer{}
			if cleared, yes := h.yes[q.ID]; yes {
				a.Yes, a.ClearedBy = true, cleared.by
				if on := today - day.Day(cleared.days); cleared.days > 0 && on <= round.On {
					a.ClearedOn = &on
				}
			}
			round.Answers[q.ID] = a
		}
		if err := tx.AddScreening(ctx, id("screening", p.name, i), client, round, coach, morning(round.On)); err != nil {
			return err
		}
	}
	for _, a := range h.aches {
		for _, s := range a.scores {
			r := person.JointReport{On: today - day.Day(s[0]), Joint: a.joint, Side: a.side, Score: s[1], Provokes: a.provokes}
			if err := tx.AddJointReport(ctx, id("joint", p.name, a.joint, a.side, s[0]), client, r, assistant, morning(r.On)); err != nil {
				return err
			}
		}
	}
	if h.tape != nil {
		for _, m := range h.tape.sessions(p, today) {
			if err := tx.PutMeasuring(ctx, client, m, assistant, morning(m.On)); err != nil {
				return err
			}
		}
	}
	if r := h.rating; r != nil {
		rating := priority.Rating{On: today - day.Day(r.daysAgo), Heads: r.heads, Confidence: r.sure, Views: priority.Views, Note: r.note}
		if err := tx.AddRating(ctx, id("rating", p.name), client, rating, coach); err != nil {
			return err
		}
	}
	if h.emphasis != nil {
		until := today + day.Day(7*h.weeks)
		e := priority.Emphasis{Levels: h.emphasis, Until: &until, SetOn: today - 14}
		if _, err := tx.SetEmphasis(ctx, client, e, 0, coach); err != nil {
			return err
		}
	}
	for line, m := range h.answers {
		if err := tx.PutPresentAnswer(ctx, client, words.KeyOf(line), m); err != nil {
			return err
		}
	}
	for i, t := range h.tried {
		o := store.TryOut{
			ID:       id("tried", p.name, i),
			On:       today - day.Day(t.daysAgo),
			Movement: t.movement,
			Settings: t.settings,
			Comfort:  t.comfort,
			Felt:     t.felt,
			Outcome:  t.outcome,
			Note:     t.note,
		}
		if err := tx.AddTryOut(ctx, client, o, assistant); err != nil {
			return err
		}
	}
	for m, why := range h.overrides {
		if err := tx.AddOverride(ctx, id("override", p.name, m), client, store.Override{Movement: m, Allowed: true, Reason: why},
			coach); err != nil {
			return err
		}
	}
	return nil
}

// morning is when what is dated a day was entered.
func morning(d day.Day) time.Time {
	return time.Unix(int64(d)*24*60*60, 0).UTC().Add(9 * time.Hour)
}

// Noise of a tape: what a day does to an arm, and what two readings differ by, cm.
const (
	dayNoise     = 0.2
	readingNoise = 0.08
)

// demoSeed makes every demo the same.
const demoSeed = 58

// sessions makes the measuring sessions, the same ones each time.
func (t *tape) sessions(p *demoClient, today day.Day) []store.Measuring {
	r := rand.New(rand.NewPCG(demoSeed, uint64(len(p.name))*31+uint64(p.name[0])))
	first := float64(t.daysAgo[0])
	var out []store.Measuring
	for _, daysAgo := range t.daysAgo {
		left := float64(daysAgo) / first // of the gain still ahead
		s := measure.Session{On: today - day.Day(daysAgo), Girths: map[measure.Site][]float64{}}
		read := func(site measure.Site, x, noisy float64) {
			x += noisy * dayNoise * r.NormFloat64()
			for range 2 {
				s.Girths[site] = append(s.Girths[site], tenth(x+noisy*readingNoise*r.NormFloat64()))
			}
		}
		for _, arm := range []struct {
			left, right measure.Site
			now         float64
		}{{measure.RelaxedLeft, measure.RelaxedRight, t.relaxed}, {measure.FlexedLeft, measure.FlexedRight, t.flexed}} {
			read(arm.left, arm.now-t.gained*left, 1)
			read(arm.right, arm.now+t.right-t.rightGained*left, 1)
		}
		read(measure.ForearmLeft, t.forearm, 0.6)
		read(measure.ForearmRight, t.forearm+0.2, 0.6)
		read(measure.WristLeft, t.wrist, 0.3)
		read(measure.WristRight, t.wrist+0.1, 0.3)
		if t.fold > 0 {
			f := t.fold + 0.3*r.NormFloat64()
			s.Skinfold = []float64{tenth(f), tenth(f + 0.2*r.NormFloat64())}
		}
		mass := tenth(p.body.BodyMass + 0.5*r.NormFloat64() - 0.8*left)
		s.MassKg = &mass
		out = append(out, store.Measuring{ID: id("measuring", p.name, daysAgo), Session: s})
	}
	return out
}

func tenth(x float64) float64 { return math.Round(x*10) / 10 }

// days are the weekdays a client trains on: those of her planned sessions, then of what
// she said, as many as she said.
func (p *demoClient) days(today day.Day, said []string) []string {
	on := []day.Day{today + day.Day(p.inDays)}
	for _, a := range p.also {
		on = append(on, today+day.Day(a.inDays))
	}
	has := map[string]bool{}
	for _, d := range on {
		has[strings.ToLower(d.Weekday()[:3])] = true
	}
	for _, w := range said {
		if len(has) < len(said) {
			has[w] = true
		}
	}
	var out []string
	for _, w := range person.Weekdays {
		if has[w] {
			out = append(out, w)
		}
	}
	return out
}
