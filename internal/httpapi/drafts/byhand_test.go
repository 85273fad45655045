package drafts

import (
	"context"
	"encoding/json"
	"maps"
	"os"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/draft"
	"musculus/internal/core/movement"
	"musculus/internal/core/week"
	"musculus/internal/demo"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
	"musculus/internal/testenv"
)

func TestMain(m *testing.M) { os.Exit(testenv.Main(m)) }

var now = time.Date(2026, 11, 25, 10, 0, 0, 0, time.UTC)

// unavoidable are findings that a draft may leave: it tells them as what it gives up, or they
// ask for nothing.
var unavoidable = []string{"under", "over", "disputed", "length", "along", "clash", "one_movement", "one_part", "prefer"}

// byHand is a week that a coach composed.
type byHand struct {
	Client string `json:"client"`
	Days   map[string][]struct {
		Movement string            `json:"movement"`
		Settings movement.Settings `json:"settings"`
		Sets     int               `json:"sets"`
	} `json:"days"`
}

// asked reads what is asked for a demo client's next week, which is empty.
func asked(t *testing.T, s *op.Server, client string, body *DraftAsked) (context.Context, *place, *asking) {
	t.Helper()
	ctx := context.Background()
	own, err := s.OwnOfStudio(ctx, demo.Studio)
	require.NoError(t, err)
	ctx = op.InStudioOf(ctx, store.Account{Studio: demo.Studio}, own)
	on, err := s.DayIn(ctx, "2026-11-30")
	require.NoError(t, err)
	from := on.Monday()
	p, a := newPlace(s), &asking{}
	require.NoError(t, s.InStudio(ctx, func(tx *store.Tx, _ store.Account) error {
		return p.read(ctx, tx, demo.ClientID(client), from, body, a)
	}))
	require.NoError(t, p.build(ctx, a))
	return ctx, p, a
}

// What is drafted for the demo's clients is at least as good as what a coach composed for
// them by hand, by the same counts, and its audit finds nothing that could be mended.
func TestDraftsAreAtLeastAsGoodAsWeeksByHand(t *testing.T) {
	kept := testenv.Store(t)
	require.NoError(t, demo.Load(context.Background(), kept, now))
	s := op.New(kept, "", func() time.Time { return now })
	b, err := os.ReadFile("../../demo/testdata/weeks_by_hand.json")
	require.NoError(t, err)
	var weeks []byHand
	require.NoError(t, json.Unmarshal(b, &weeks))
	require.Len(t, weeks, 8)
	for _, hand := range weeks {
		ctx, p, a := asked(t, s, hand.Client, &DraftAsked{Stage: draft.Final, Sessions: []LaidSession{}})
		cl := &draft.Client{Trainee: a.audited.T, Catalogue: op.Movements(ctx)}
		var sets []movement.SetUp
		for _, slots := range hand.Days {
			for _, o := range slots {
				set, err := op.SetUp(ctx, "", o.Movement, o.Settings)
				require.NoError(t, err)
				sets = append(sets, set)
			}
		}
		d := draft.Build(cl, a.pool.With(cl, sets), &draft.Ask{Monday: a.from})
		composed := draft.Week{Days: make([][]draft.Slot, len(d.Days))}
		left := 0
		weekdays := slices.SortedFunc(maps.Keys(hand.Days), func(a, b string) int { return week.Weekday(a) - week.Weekday(b) })
		require.Len(t, d.Days, len(weekdays), "the demo's days move with today, their number does not")
		for i, weekday := range weekdays {
			for _, o := range hand.Days[weekday] {
				set, _ := op.SetUp(ctx, "", o.Movement, o.Settings)
				k := slices.IndexFunc(d.Candidates, func(c draft.Candidate) bool { return c.ID == set.Key() })
				if k < 0 {
					t.Logf("   %s may not do %s", hand.Client, set.Title())
					left++
					continue
				}
				composed.Days[i] = append(composed.Days[i], draft.Slot{Candidate: k, Sets: o.Sets})
			}
		}
		three := p.compose(ctx, a)
		value, refused := draft.Value(d.Problem, draft.Robust, &composed)
		own := draft.Objective(three[0].Problem, draft.Robust, &three[0].Week)
		t.Logf("%s: by hand %.2f (%d slots past a limit, %d not hers), drafted %.2f", hand.Client, value, refused, left, own)
		assert.LessOrEqual(t, own, value+1e-9, hand.Client)
		shelf := week.Stock(op.Movements(ctx), a.audited.T.Yardstick, a.audited.T.Stance)
		for i := range three {
			laid := a.dated.Lay(three[i].Problem, three[i].Way, &three[i].Week, a.finish())
			w := week.Week{Sessions: laid.Sessions}
			l := w.Count(a.audited.T)
			for _, f := range w.Audit(a.audited.T, shelf, &l, 0) {
				assert.Contains(t, unavoidable, f.Code, "%s, %s: %s", hand.Client, three[i].Way, f.Text)
			}
		}
		if testing.Verbose() {
			v, err := p.show(ctx, a)
			require.NoError(t, err)
			t.Log(v.Of, v.Clashes, v.Swaps, v.Free)
			for _, w := range v.Drafts {
				t.Log("  ", w.Title, w.Says, w.Minutes, w.GivesUp)
				for _, day := range w.Days {
					t.Log("     ", day.Name, day.Minutes)
					for _, o := range day.Slots {
						t.Log("        ", o.Title, o.Details, "|", o.Dose, "|", o.Load, "|", o.State, "|", o.Carries, o.Also)
					}
				}
			}
		}
	}
}
