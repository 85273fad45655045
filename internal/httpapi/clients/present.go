package clients

import (
	"context"
	"fmt"
	"net/http"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/arm"
	"musculus/internal/core/present"
	"musculus/internal/core/words"
	"musculus/internal/figure"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
	"musculus/internal/view"
)

// PresentView is what a client does now, read line by line, and what it covers.
type PresentView struct {
	Lines   []PresentLine  `json:"lines"`
	Heads   []CoveredView  `json:"heads"`
	Repeats []string       `json:"repeats"` // pairs of lines that are one idea twice
	Never   []string       `json:"never"`   // heads that get next to nothing
	Open    int            `json:"open"`    // lines still asked
	Slice   view.SliceView `json:"slice"`
	Assumed string         `json:"assumed"`
}

// PresentLine is one line of the list.
type PresentLine struct {
	Text    string            `json:"text"`
	Says    string            `json:"says"`   // what is understood of it besides: sets, reps, load, effort
	Left    []string          `json:"left"`   // its words that say nothing here
	Chosen  string            `json:"chosen"` // a movement's id, or press, pull, nothing
	Name    string            `json:"name"`
	Choices []view.ChoiceView `json:"choices"`
	Ask     string            `json:"ask"`
	Unknown string            `json:"unknown"` // the word nobody knows
}

// CoveredView is what one head gets, by the length it works at.
type CoveredView struct {
	ID     string  `json:"id"`
	Name   string  `json:"name"`
	Sets   float64 `json:"sets"`
	Short  float64 `json:"short"`
	Middle float64 `json:"middle"`
	Long   float64 `json:"long"`
	Why    string  `json:"why"` // the lines that give it sets
}

type presentInput struct {
	Client uuid.UUID `path:"client"`
	Body   struct {
		Text string `json:"text" maxLength:"5000"`
	}
}

type presentOutput struct{ Body PresentView }

type answerInput struct {
	Client uuid.UUID `path:"client"`
	Body   struct {
		Text     string `json:"text" maxLength:"5000" doc:"the whole list, to be read again"`
		Line     string `json:"line" maxLength:"300"`
		Movement string `json:"movement" maxLength:"60"`
	}
}

func (s *place) registerPresent(api huma.API) {
	huma.Register(
		api,
		op.Operation("read-present", op.Everybody, http.MethodPost, "/clients/{client}/present", "Read what the client does now"),
		s.readPresent,
	)
	huma.Register(
		api,
		op.Operation("answer-present", op.Planners, http.MethodPut, "/clients/{client}/present/answers", "Say which movement a line is"),
		s.answerPresent,
	)
}

func (s *place) readPresent(ctx context.Context, in *presentInput) (*presentOutput, error) {
	return s.answerList(ctx, in.Client, in.Body.Text, func(*store.Tx) error { return nil })
}

func (s *place) answerPresent(ctx context.Context, in *answerInput) (*presentOutput, error) {
	key := words.KeyOf(in.Body.Line)
	if key == "" {
		return nil, op.FieldProblem("body.line", "this line has no words to keep an answer under")
	}
	if !slices.Contains([]string{words.CountsPress, words.CountsPull, words.CountsNothing}, in.Body.Movement) &&
		op.Movements(ctx).Get(in.Body.Movement) == nil {
		return nil, op.FieldProblem("body.movement", "there is no movement %q", in.Body.Movement)
	}
	return s.answerList(
		ctx,
		in.Client,
		in.Body.Text,
		func(tx *store.Tx) error { return tx.PutPresentAnswer(ctx, in.Client, key, in.Body.Movement) },
	)
}

// presentRead is what a list is read with.
type presentRead struct {
	c       store.Client
	answers map[string]string
}

// answerList shows what a list covers, read with the answers there are after do.
func (s *place) answerList(ctx context.Context, client uuid.UUID, text string, do func(*store.Tx) error) (*presentOutput, error) {
	return op.Showing(ctx, s.Server, func(tx *store.Tx, r *presentRead) (err error) {
		if r.c, err = tx.Client(ctx, client); err != nil {
			return err
		}
		if err = do(tx); err != nil {
			return err
		}
		r.answers, err = tx.PresentAnswers(ctx, client)
		return err
	}, func(r *presentRead) (*presentOutput, error) {
		v, err := s.showPresent(ctx, r, text)
		return &presentOutput{v}, err
	})
}

func (s *place) showPresent(ctx context.Context, r *presentRead, text string) (PresentView, error) {
	out := PresentView{Lines: []PresentLine{}, Heads: []CoveredView{}, Repeats: []string{}, Never: []string{},
		Assumed: "Counted as hard sets, three where none are said: a list does not tell its effort."}
	y, err := s.Yardstick(r.c.Dossier.Body())
	if err != nil {
		return out, err
	}
	lines := present.Read(text, op.OwnOf(ctx).Reader, r.answers)
	for i := range lines {
		l := &lines[i]
		v := PresentLine{Text: l.Text, Says: l.Says(), Left: l.Left, Chosen: l.Counts, Name: words.CountsWords(l.Counts),
			Choices: []view.ChoiceView{}, Ask: l.Ask, Unknown: l.Unknown}
		if l.Movement != nil {
			v.Chosen, v.Name = l.Movement.ID, l.Part.SetUp.Name()
		}
		if v.Left == nil {
			v.Left = []string{}
		}
		for _, c := range l.Choices {
			v.Choices = append(v.Choices, view.ChoiceView{Value: c.Movement.ID, Words: c.Name()})
		}
		out.Lines = append(out.Lines, v)
	}
	picture := present.Cover(lines, y, r.c.Stance)
	var sets [arm.HeadCount]float64
	for h, got := range picture.Heads {
		sets[h] = got.Sets
		out.Heads = append(
			out.Heads,
			CoveredView{
				arm.Heads[h].ID,
				arm.Heads[h].Name,
				view.Round4(got.Sets),
				view.Round4(got.Zones[0]),
				view.Round4(got.Zones[1]),
				view.Round4(got.Zones[2]),
				strings.Join(got.Terms, "; "),
			},
		)
	}
	for _, r := range picture.Repeats {
		out.Repeats = append(out.Repeats, fmt.Sprintf("“%s” and “%s” are nearly one idea twice.", lines[r.A].Text, lines[r.B].Text))
	}
	for _, h := range picture.Never {
		out.Never = append(out.Never, arm.Heads[h].Name)
	}
	out.Open = picture.Open
	out.Slice = view.SliceOf("Effective sets of the present list", sets, sets, sets, view.Levels(sets, figure.SetsLevel))
	return out, nil
}
