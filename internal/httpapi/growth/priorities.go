package growth

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/measure"
	"musculus/internal/core/priority"
	"musculus/internal/core/stance"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
	"musculus/internal/view"
)

// PrioritiesView is what should grow, side by side with why.
type PrioritiesView struct {
	Stance    string         `json:"stance"`
	Heads     []HeadPriority `json:"heads"`
	Notes     []string       `json:"notes"`
	Gaps      []AnswerView   `json:"gaps"`
	Rating    *RatingView    `json:"rating"` // the last
	Views     []string       `json:"views"`  // of the pose checklist
	Emphasis  *EmphasisView  `json:"emphasis"`
	Version   int            `json:"version"` // of the emphasis, 0: none set
	Until     day.Day        `json:"default_until"`
	Scale     string         `json:"scale"`      // from which score what is proposed
	FirstYear bool           `json:"first_year"` // targets are two thirds
	Slice     view.SliceView `json:"slice"`
}

// HeadPriority is one head: what asks for it, what is proposed, what is set.
type HeadPriority struct {
	ID       string   `json:"id"`
	Code     string   `json:"code"`
	Name     string   `json:"name"`
	Wishes   []string `json:"wishes"`
	Rated    *int     `json:"rated"` // −2 far behind … +2 far ahead
	Score    float64  `json:"score"`
	Proposed string   `json:"proposed" enum:"maintain,build,prioritise"`
	Reasons  []string `json:"reasons"`
	Level    string   `json:"level" enum:"maintain,build,prioritise"` // today
	Low      float64  `json:"target_low"`                             // effective sets a week
	High     float64  `json:"target_high"`
	Band     string   `json:"band"`     // where the target comes from
	Together string   `json:"together"` // the neighbour the stance does not tell it apart from
}

// RatingView is a pose rating.
type RatingView struct {
	priority.Rating
	Words string `json:"words"`
}

// EmphasisView is what the coach set.
type EmphasisView struct {
	priority.Emphasis
	UntilWords string `json:"until_words"`
	SetWords   string `json:"set_words"`
	Over       bool   `json:"over"` // its end is past
}

type prioritiesOutput struct{ Body PrioritiesView }

type rateInput struct {
	Client uuid.UUID `path:"client"`
	Body   struct {
		ID uuid.UUID `json:"id"`
		priority.Rating
	}
}

type emphasisInput struct {
	Client uuid.UUID `path:"client"`
	Body   struct {
		Version int                       `json:"version" minimum:"0" maximum:"1000000" doc:"as it was read"`
		Levels  map[string]priority.Level `json:"levels"`
		Until   *day.Day                  `json:"until"`
	}
}

func (s *place) registerPriorities(api huma.API) {
	huma.Register(
		api,
		op.Operation("priorities", op.Everybody, http.MethodGet, "/clients/{client}/priorities", "What should grow, and why"),
		s.priorities,
	)
	huma.Register(
		api,
		op.Operation("rate-poses", op.Planners, http.MethodPost, "/clients/{client}/ratings", "Keep a pose rating"),
		s.ratePoses,
	)
	huma.Register(
		api,
		op.Operation(
			"set-emphasis",
			op.Planners,
			http.MethodPut,
			"/clients/{client}/emphasis",
			"Set what is maintained, built and prioritised",
		),
		s.setEmphasis,
	)
}

func (s *place) priorities(ctx context.Context, in *op.ClientInput) (*prioritiesOutput, error) {
	return s.answerPriorities(ctx, in.Client, func(*store.Tx, store.Account) error { return nil })
}

func (s *place) ratePoses(ctx context.Context, in *rateInput) (*prioritiesOutput, error) {
	if err := op.FieldFaults("body.", in.Body.Rating.Check(s.Day(ctx))); err != nil {
		return nil, err
	}
	return s.answerPriorities(ctx, in.Client, func(tx *store.Tx, a store.Account) error {
		return tx.AddRating(ctx, in.Body.ID, in.Client, in.Body.Rating, a.ID)
	})
}

func (s *place) setEmphasis(ctx context.Context, in *emphasisInput) (*prioritiesOutput, error) {
	e := priority.Emphasis{Levels: in.Body.Levels, Until: in.Body.Until, SetOn: s.Day(ctx)}
	if err := op.FieldFaults("body.", e.Check(s.Day(ctx))); err != nil {
		return nil, err
	}
	return s.answerPriorities(ctx, in.Client, func(tx *store.Tx, a store.Account) error {
		done, err := tx.SetEmphasis(ctx, in.Client, e, in.Body.Version, a.ID)
		if err == nil && !done {
			err = op.Problem(http.StatusConflict, "somebody set the emphasis in between; nothing was written, look at theirs first")
		}
		return err
	})
}

// prioritiesRead is what a client's priorities are shown from.
type prioritiesRead struct {
	c        store.Client
	kept     []store.Measuring
	ratings  []priority.Rating
	emphasis *priority.Emphasis
	version  int
}

// answerPriorities shows a client's priorities as they are after do.
func (s *place) answerPriorities(
	ctx context.Context,
	client uuid.UUID,
	do func(*store.Tx, store.Account) error,
) (*prioritiesOutput, error) {
	return op.Showing(ctx, s.Server, func(tx *store.Tx, r *prioritiesRead) (err error) {
		if r.c, err = tx.Client(ctx, client); err != nil {
			return err
		}
		if err = do(tx, op.AccountOf(ctx)); err != nil {
			return err
		}
		if r.kept, err = s.Measurings(ctx, tx, &r.c); err != nil {
			return err
		}
		if r.ratings, err = tx.Ratings(ctx, client); err != nil {
			return err
		}
		r.emphasis, r.version, err = tx.Emphasis(ctx, client)
		return err
	}, func(r *prioritiesRead) (*prioritiesOutput, error) {
		return &prioritiesOutput{s.showPriorities(r, s.Day(ctx))}, nil
	})
}

func (s *place) showPriorities(r *prioritiesRead, today day.Day) PrioritiesView {
	out := PrioritiesView{
		Heads: []HeadPriority{},
		Notes: []string{},
		Gaps:  []AnswerView{},
		Views: priority.Views,
		Scale: priority.Scale(),
		Until: priority.DefaultEnd(today),
	}
	c, kept, ratings, emphasis, version := &r.c, r.kept, r.ratings, r.emphasis, r.version
	var rating *priority.Rating
	if len(ratings) > 0 {
		rating = &ratings[0]
		out.Rating = &RatingView{*rating, rating.On.Words()}
	}
	var gaps []measure.Answer
	for i := range measure.Kinds {
		if gap, ok := measure.Gap(op.SessionsOf(kept), &measure.Kinds[i]); ok {
			gaps = append(gaps, gap)
			out.Gaps = append(out.Gaps, *viewAnswer(gap))
		}
	}
	if emphasis != nil {
		v := EmphasisView{Emphasis: *emphasis, SetWords: emphasis.SetOn.Words()}
		if emphasis.Until != nil {
			v.UntilWords, v.Over = emphasis.Until.Words(), *emphasis.Until < today
		}
		out.Emphasis = &v
	}
	weights, notes := priority.Propose(
		c.Dossier.Wishes,
		rating,
		gaps,
		c.Stance,
		priority.Time{Minutes: c.Dossier.Minutes, Days: len(c.Dossier.Weekdays), FirstYear: c.Dossier.FirstYear(today)},
		today,
	)
	out.Notes = append(out.Notes, notes...)
	out.Stance, out.Version, out.FirstYear = c.Stance.Name, version, c.Dossier.FirstYear(today)
	for h := range weights {
		out.Heads = append(out.Heads, headPriority(c, arm.HeadIndex(h), &weights[h], rating, emphasis, today))
	}
	out.Slice = view.EmphasisSlice(&c.Dossier, emphasis, today)
	return out
}

func headPriority(
	c *store.Client,
	h arm.HeadIndex,
	w *priority.Weight,
	rating *priority.Rating,
	emphasis *priority.Emphasis,
	today day.Day,
) HeadPriority {
	head := &arm.Heads[h]
	level := emphasis.Of(h, today)
	target := priority.TargetOf(level, c.Dossier.FirstYear(today))
	out := HeadPriority{
		ID:       head.ID,
		Code:     head.Code,
		Name:     head.Name,
		Wishes:   []string{},
		Score:    view.Round4(w.Score),
		Proposed: string(w.Level),
		Reasons:  w.Reasons,
		Level:    string(level),
		Low:      view.Round4(target.Low),
		Band:     priority.BandWords(level, c.Dossier.FirstYear(today)),
		High:     view.Round4(target.High),
		Together: together(c.Stance, h),
	}
	for _, wish := range c.Dossier.Wishes {
		for _, id := range wish.Heads {
			if id == head.ID {
				out.Wishes = append(out.Wishes, wish.Text)
			}
		}
	}
	if rating != nil {
		if x, ok := rating.Heads[head.ID]; ok {
			out.Rated = &x
		}
	}
	return out
}

// together names the neighbour that a stance does not tell a head apart from.
func together(st *stance.Stance, h arm.HeadIndex) string {
	if other, ok := priority.Neighbour(h); ok && !priority.Apart(st, h, other) {
		return arm.Heads[other].Name
	}
	return ""
}
