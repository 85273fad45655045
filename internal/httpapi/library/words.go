package library

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"musculus/internal/core/arm"
	"musculus/internal/core/movement"
	"musculus/internal/core/words"
	"musculus/internal/formats"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

type findInput struct {
	Text string `query:"text" maxLength:"300"`
}

// FoundView is a set-up that plain words find.
type FoundView struct {
	Movement string            `json:"movement"`
	Settings movement.Settings `json:"settings"` // that the words turn
	Name     string            `json:"name"`
}

type findOutput struct {
	Body struct {
		formats.WordsLine
		Understood []string    `json:"understood"` // part by part, what is understood besides the movement; empty for nothing
		Found      []FoundView `json:"found"`      // all that no word contradicts, likeliest first
		Heads      []string    `json:"heads"`      // that the words name
	}
}

// OwnWordView is one of the studio's own words.
type OwnWordView struct {
	Word      string            `json:"word"`
	Movement  string            `json:"movement"`  // empty where it only says what is held
	Implement string            `json:"implement"` // empty where it is a movement
	Settings  movement.Settings `json:"settings"`
	Says      string            `json:"says"` // what it stands for
}

type ownWordsOutput struct {
	Body struct {
		Words []OwnWordView `json:"words"`
	}
}

type ownWordInput struct {
	Word string `path:"word" maxLength:"60"`
	Body struct {
		Movement  string            `json:"movement,omitempty" maxLength:"60"`
		Implement string            `json:"implement,omitempty" maxLength:"40"`
		Settings  movement.Settings `json:"settings,omitempty"`
	}
}

type dropWordInput struct {
	Word string `path:"word" maxLength:"60"`
}

func (s *place) registerWords(api huma.API) {
	huma.Register(
		api,
		op.Operation("find", op.Everybody, http.MethodGet, "/find", "What plain words say, and the set-ups they find"),
		s.find,
	)
	huma.Register(api, op.Operation("own-words", op.Everybody, http.MethodGet, "/own/words", "The studio's own words"),
		func(ctx context.Context, _ *struct{}) (*ownWordsOutput, error) { return viewWords(op.OwnOf(ctx)), nil })
	huma.Register(
		api,
		op.Operation(
			"put-own-word",
			op.Planners,
			http.MethodPut,
			"/own/words/{word}",
			"Say what a word of the studio's own means",
		),
		s.putWord,
	)
	huma.Register(
		api,
		op.Operation("drop-own-word", op.Planners, http.MethodDelete, "/own/words/{word}", "Forget a word of the studio's own"),
		s.dropWord,
	)
}

func (s *place) find(ctx context.Context, in *findInput) (*findOutput, error) {
	got := op.OwnOf(ctx).Reader.Find(in.Text)
	out := &findOutput{}
	out.Body.WordsLine = formats.WordsOf(&got.Line)
	out.Body.Found, out.Body.Heads, out.Body.Understood = []FoundView{}, []string{}, []string{}
	for i := range got.Line.Parts {
		p := &got.Line.Parts[i]
		says := p.Says()
		if c := words.CountsWords(p.Counts); c != "" {
			says = c
		}
		out.Body.Understood = append(out.Body.Understood, says)
	}
	for _, f := range got.SetUps {
		out.Body.Found = append(out.Body.Found, FoundView{f.Movement.ID, f.Turned(), f.Name()})
	}
	for _, h := range got.Heads {
		out.Body.Heads = append(out.Body.Heads, arm.Heads[h].ID)
	}
	return out, nil
}

func viewWords(own *op.Own) *ownWordsOutput {
	out := &ownWordsOutput{}
	out.Body.Words = []OwnWordView{}
	for _, w := range own.Words {
		v := OwnWordView{
			w.Word,
			w.Movement,
			string(w.Implement),
			w.Settings,
			movement.ChoiceWords(movement.Implement, string(w.Implement)),
		}
		if w.Movement != "" {
			v.Says = "a movement that is no longer there"
			if set, err := own.Catalogue.SetUp("", w.Movement, w.Settings); err == nil {
				v.Says = set.Name()
			}
		}
		out.Body.Words = append(out.Body.Words, v)
	}
	return out
}

func (s *place) putWord(ctx context.Context, in *ownWordInput) (*ownWordsOutput, error) {
	w := words.Own{Word: words.KeyOf(in.Word), Movement: in.Body.Movement, Settings: in.Body.Settings,
		Implement: movement.ImplementID(in.Body.Implement)}
	if fault := w.Check(op.Movements(ctx)); fault != nil {
		return nil, op.FieldProblem("body."+fault.Field, "%s", fault.Reason)
	}
	return s.changeWords(ctx, func(tx *store.Tx, by store.Account) error { return tx.PutOwnWord(ctx, w, by.ID) })
}

func (s *place) dropWord(ctx context.Context, in *dropWordInput) (*ownWordsOutput, error) {
	return s.changeWords(ctx, func(tx *store.Tx, _ store.Account) error { return tx.DropOwnWord(ctx, in.Word) })
}

// changeWords writes and shows the words as they are then.
func (s *place) changeWords(ctx context.Context, do func(*store.Tx, store.Account) error) (*ownWordsOutput, error) {
	if err := s.InStudio(ctx, do); err != nil {
		return nil, err
	}
	studio := op.AccountOf(ctx).Studio
	s.Catalogues.Forget(studio)
	own, err := s.OwnOfStudio(ctx, studio)
	if err != nil {
		return nil, op.ProblemOf(err)
	}
	return viewWords(own), nil
}
