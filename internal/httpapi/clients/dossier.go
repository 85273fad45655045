package clients

import (
	"context"
	"encoding/json"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

// DossierView is who a client is, and what follows from it.
type DossierView struct {
	ID        uuid.UUID      `json:"id"`
	Dossier   person.Dossier `json:"dossier"`
	Says      []string       `json:"says"` // what the answers change
	WishKinds []WishView     `json:"wish_kinds"`
	Wishes    []WishView     `json:"wishes"` // how each wish reads, in their order
	Studio    []RoomName     `json:"studio_rooms"`
	Standing  StandingView   `json:"standing"`
	Caps      []string       `json:"caps"` // what the doses may not go beyond, in words
	Questions []QuestionView `json:"questions"`
	Asked     *RoundView     `json:"asked"`  // the last screening
	Rounds    []string       `json:"rounds"` // dates of all, the latest first
	Joints    []JointView    `json:"joints"`
	Mobility  []string       `json:"mobility_says"`
	Verdicts  VerdictCount   `json:"verdicts"`
	Health    string         `json:"no_diagnosis"`
	// Hidden is how many rounds of screening are kept without a consent that holds:
	// out of sight, to be erased.
	Hidden     int    `json:"hidden_rounds"`
	MayMeasure string `json:"may_measure"` // what measures and photos still need, empty for nothing
	// AnswersHidden says that the answers of the screening are a coach's to see.
	AnswersHidden bool     `json:"answers_hidden"`
	Opened        []string `json:"opened"` // who opened what of the client lately, a line a day; a coach's to see
}

// WishView is a wish as it reads: the heads the words come to.
type WishView struct {
	Says  string   `json:"says"`
	Heads []string `json:"heads"`
	Note  string   `json:"note"`
}

// RoomName is a room to choose.
type RoomName struct {
	ID   uuid.UUID `json:"id"`
	Name string    `json:"name"`
}

// StandingView is where the client stands today.
type StandingView struct {
	Level    string     `json:"level" enum:"clear,work_around,stop,same_day,emergency"`
	Heading  string     `json:"heading"`
	MayTrain bool       `json:"may_train"`
	Said     []SaidView `json:"said"`
}

// SaidView is one thing that leads there.
type SaidView struct {
	Level string `json:"level" enum:"clear,work_around,stop,same_day,emergency"`
	Words string `json:"words"`
}

// QuestionView is one question of the screening.
type QuestionView struct {
	ID     string `json:"id"`
	Text   string `json:"text"`
	Says   string `json:"says"`   // what a yes leads to
	Level  string `json:"level"`  // of a yes
	Clears bool   `json:"clears"` // by a dated clearance
}

// RoundView is one round of the screening.
type RoundView struct {
	On      string                   `json:"on"`
	When    string                   `json:"when"`
	By      string                   `json:"by"`
	Answers map[string]person.Answer `json:"answers"`
}

// JointView is a joint of one side with its history.
type JointView struct {
	Joint   string       `json:"joint"`
	Name    string       `json:"name"`
	Side    string       `json:"side" enum:"left,right"`
	Score   *int         `json:"score"` // the latest
	Sore    string       `json:"sore" enum:",sore,bad"`
	Reports []JointPoint `json:"reports"`
}

// JointPoint is one score.
type JointPoint struct {
	On       string `json:"on"`
	Words    string `json:"words"`
	Score    int    `json:"score"`
	Provokes string `json:"provokes"`
	Outside  bool   `json:"outside"`
}

// VerdictCount is what all of the catalogue's set-ups come to for the client.
type VerdictCount struct {
	Allowed int           `json:"allowed"`
	Modify  int           `json:"modify"`
	Avoid   int           `json:"avoid"`
	Lacking int           `json:"lacking"` // what the usual room cannot do
	Lines   []VerdictLine `json:"lines"`   // what is not simply allowed
}

// VerdictLine is one movement that is modified or avoided.
type VerdictLine struct {
	Movement string `json:"movement"`
	Name     string `json:"name"`
	Ruling   string `json:"ruling" enum:"modify,avoid"`
	Words    string `json:"words"`
	Reason   string `json:"reason"` // of an override, empty for none
}

type dossierOutput struct{ Body DossierView }

type changeInput struct {
	Client uuid.UUID `path:"client"`
	Body   struct {
		Changes []ChangeView `json:"changes" minItems:"1" maxItems:"40"`
	}
}

// ChangeView is one field as it was read and as it shall be.
type ChangeView struct {
	Field string          `json:"field" maxLength:"60"`
	Was   json.RawMessage `json:"was"`
	Value json.RawMessage `json:"value"`
}

type screeningInput struct {
	Client uuid.UUID `path:"client"`
	Body   struct {
		ID uuid.UUID `json:"id"`
		person.Screening
	}
}

type jointInput struct {
	Client uuid.UUID `path:"client"`
	Body   struct {
		ID uuid.UUID `json:"id"`
		person.JointReport
	}
}

func (s *place) registerDossier(api huma.API) {
	huma.Register(
		api,
		op.Operation("get-dossier", op.Everybody, http.MethodGet, "/clients/{client}/dossier", "Who a client is, and what follows from it"),
		s.getDossier,
	)
	huma.Register(
		api,
		op.Operation("change-dossier", op.Planners, http.MethodPatch, "/clients/{client}/dossier", "Change fields of a dossier"),
		s.changeDossier,
	)
	huma.Register(
		api,
		op.Operation("screen", op.Planners, http.MethodPost, "/clients/{client}/screenings", "Keep a round of the screening"),
		s.screen,
	)
	huma.Register(
		api,
		op.Operation("report-joint", op.Planners, http.MethodPost, "/clients/{client}/joints", "Keep a joint's score"),
		s.reportJoint,
	)
}

func (s *place) getDossier(ctx context.Context, in *op.ClientInput) (*dossierOutput, error) {
	out, err := s.answerDossier(ctx, in.Client, func(*store.Tx) error { return nil })
	if err == nil {
		s.NoteRead(ctx, in.Client, "dossier")
	}
	return out, err
}

func (s *place) changeDossier(ctx context.Context, in *changeInput) (*dossierOutput, error) {
	changes := make([]person.Change, len(in.Body.Changes))
	for i, c := range in.Body.Changes {
		changes[i] = person.Change(c)
	}
	return s.answerDossier(ctx, in.Client, func(tx *store.Tx) error {
		if err := s.roomsAreOurs(ctx, tx, changes); err != nil {
			return err
		}
		clashes, wrong, err := tx.ChangeDossier(ctx, in.Client, changes, op.AccountOf(ctx).ID, s.Day(ctx), s.Now())
		switch {
		case err != nil:
			return err
		case len(clashes) > 0:
			return s.clash(ctx, tx, in.Client, clashes)
		case len(wrong) > 0:
			return op.FieldFaults("body.", wrong)
		}
		return nil
	})
}

// roomsAreOurs refuses rooms that are not of the studio.
func (s *place) roomsAreOurs(ctx context.Context, tx *store.Tx, changes []person.Change) error {
	for _, c := range changes {
		var ids []string
		if c.Field != "rooms" || json.Unmarshal(c.Value, &ids) != nil {
			continue
		}
		rooms, err := tx.Rooms(ctx)
		if err != nil {
			return err
		}
		ours := map[string]bool{}
		for _, r := range rooms {
			ours[r.ID.String()] = true
		}
		for _, id := range ids {
			if !ours[id] {
				return op.FieldProblem("body.rooms", "there is no such room in this studio")
			}
		}
	}
	return nil
}

func (s *place) clash(ctx context.Context, tx *store.Tx, client uuid.UUID, clashes []person.Clash) error {
	p := &op.ClashProblem{ErrorModel: *op.Problem(http.StatusConflict, "somebody else changed this in between; nothing was written")}
	for _, c := range clashes {
		last, err := tx.LastChange(ctx, client, c.Field)
		if err != nil {
			return err
		}
		v := op.ClashView{Field: c.Field, Now: c.Now, By: last.Name}
		if !last.At.IsZero() {
			v.At = &last.At
		}
		p.Clashes = append(p.Clashes, v)
	}
	return p
}

// healthNote keeps a health note, with the client's consent, and shows the dossier
// after it; check says what is wrong with it.
func (s *place) healthNote(
	ctx context.Context,
	client uuid.UUID,
	check func(tx *store.Tx) ([]movement.FieldError, error),
	add func(tx *store.Tx, by uuid.UUID) error,
) (*dossierOutput, error) {
	return s.answerDossier(ctx, client, func(tx *store.Tx) error {
		c, err := tx.Client(ctx, client)
		if err != nil {
			return err
		}
		if c.Dossier.HealthConsent == nil {
			return op.FieldProblem("body.health_consent", "health notes are kept only with the client’s consent, with its date")
		}
		wrong, err := check(tx)
		if err == nil {
			err = op.FieldFaults("body.", wrong)
		}
		if err == nil {
			err = add(tx, op.AccountOf(ctx).ID)
		}
		return err
	})
}

func (s *place) screen(ctx context.Context, in *screeningInput) (*dossierOutput, error) {
	check := func(tx *store.Tx) ([]movement.FieldError, error) {
		rounds, err := tx.Screenings(ctx, in.Client)
		var last *person.Screening
		for i := range rounds {
			if rounds[i].ID != in.Body.ID { // the round before, should this one be sent again
				last = &rounds[i].Screening
				break
			}
		}
		return in.Body.Screening.Check(s.Day(ctx), last), err
	}
	return s.healthNote(ctx, in.Client, check, func(tx *store.Tx, by uuid.UUID) error {
		return tx.AddScreening(ctx, in.Body.ID, in.Client, in.Body.Screening, by, s.Now())
	})
}

func (s *place) reportJoint(ctx context.Context, in *jointInput) (*dossierOutput, error) {
	check := func(*store.Tx) ([]movement.FieldError, error) { return in.Body.JointReport.Check(s.Day(ctx)), nil }
	return s.healthNote(ctx, in.Client, check, func(tx *store.Tx, by uuid.UUID) error {
		return tx.AddJointReport(ctx, in.Body.ID, in.Client, in.Body.JointReport, by, s.Now())
	})
}
