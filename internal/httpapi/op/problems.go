package op

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"

	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/httpapi/request"
	"musculus/internal/store"
)

// ClashProblem is a 409 that shows what somebody else wrote in between.
type ClashProblem struct {
	huma.ErrorModel
	Clashes []ClashView `json:"clashes"`
}

// ClashView is one field that is no longer as it was read.
type ClashView struct {
	Field string          `json:"field"`
	Now   json.RawMessage `json:"now"`
	By    string          `json:"by"`
	At    *time.Time      `json:"at"`
}

// ContentType marks it as a problem.
func (*ClashProblem) ContentType(string) string { return "application/problem+json" }

// FieldFaults tells errors of the core at their fields.
func FieldFaults(prefix string, list []person.FieldError) error {
	pointers := make([]*movement.FieldError, len(list))
	for i := range list {
		pointers[i] = &list[i]
	}
	return Faults(prefix, pointers)
}

// Problem is an error with its status (RFC 9457); what is wrong with a field is told
// at the field ("body.slots[1].dose.reserve").
func Problem(status int, detail string, fields ...*huma.ErrorDetail) *huma.ErrorModel {
	return &huma.ErrorModel{Status: status, Title: http.StatusText(status), Detail: detail, Errors: fields}
}

// Faults tells validation errors of the core, the prefix being where in the
// request the checked part was.
func Faults(prefix string, list []*movement.FieldError) error {
	if len(list) == 0 {
		return nil
	}
	p := Problem(http.StatusUnprocessableEntity, list[0].Reason)
	asks := true
	for _, f := range list {
		p.Errors = append(p.Errors, &huma.ErrorDetail{Location: prefix + f.Field, Message: f.Reason})
		asks = asks && f.Asks
	}
	if asks { // nothing is wrong that a reason does not answer
		return &AskProblem{*p, Ask{Question: list[0].Reason, Field: prefix + list[0].Field, Needs: needsReason}}
	}
	return p
}

// AskProblem is a 422 that asks back before anything is kept: sent again with its
// answer, under the same id, it is done.
type AskProblem struct {
	huma.ErrorModel
	Ask Ask `json:"ask"`
}

// Ask is the question, and what answers it.
type Ask struct {
	Question string      `json:"question"`
	Field    string      `json:"field"`
	Needs    string      `json:"needs"             enum:"sure,reason,code,studio"`
	Options  []AskOption `json:"options,omitempty"` // what to choose from
}

// AskOption is one of several answers.
type AskOption struct {
	Value string `json:"value"`
	Words string `json:"words"`
}

// What answers a question: the coach is sure, or gives a reason; whoever signs in gives
// a code of the second factor, or chooses a studio.
const (
	needsSure   = "sure"
	needsReason = "reason"
	NeedsCode   = "code"
	NeedsStudio = "studio"
)

// AskFor asks for something more, with a status of its own.
func AskFor(status int, location, question, needs string, options []AskOption) error {
	return &AskProblem{*Problem(status, question), Ask{Question: question, Field: location, Needs: needs, Options: options}}
}

// ContentType marks it as a problem.
func (*AskProblem) ContentType(string) string { return "application/problem+json" }

// AskBack asks back about one field.
func AskBack(location, question string) error {
	p := Problem(http.StatusUnprocessableEntity, question, &huma.ErrorDetail{Location: location, Message: question})
	return &AskProblem{*p, Ask{Question: question, Field: location, Needs: needsSure}}
}

// ProblemIf turns an error into a problem, nil into nil.
func ProblemIf(err error) error {
	if err == nil {
		return nil
	}
	return ProblemOf(err)
}

// ProblemOf says which problem an error of the core or the store is.
func ProblemOf(err error) huma.StatusError {
	var status huma.StatusError
	var database *pgconn.PgError
	var stale *store.StaleMeasuring
	var field *movement.FieldError
	switch {
	case errors.As(err, &status):
		return status
	case errors.As(err, &field): // what is kept, or was sent, cannot be read any more
		return Problem(
			http.StatusUnprocessableEntity,
			field.Reason,
			&huma.ErrorDetail{Location: "body." + field.Field, Message: field.Reason},
		)
	case errors.Is(err, store.ErrNotFound), errors.Is(err, pgx.ErrNoRows):
		return Problem(http.StatusNotFound, "there is no such thing in this studio")
	case errors.As(err, &database) && database.Code == "42501": // row-level security: the id is another studio's
		return Problem(http.StatusNotFound, "there is no such thing in this studio")
	case errors.Is(err, context.Canceled): // nobody waits for the answer any more
		return Problem(http.StatusServiceUnavailable, "the request was given up")
	case store.Away(err):
		return Problem(http.StatusServiceUnavailable, "the database cannot be reached just now; nothing was written, try again")
	case errors.Is(err, store.ErrTaken):
		return Problem(
			http.StatusConflict,
			"this id was used for something else; nothing was kept, send it again under an id of its own",
		)
	case errors.As(err, &stale):
		return Problem(http.StatusConflict, "this was "+stale.Error()+"; nothing was written, look at it once more")
	case errors.Is(err, context.DeadlineExceeded):
		return Problem(http.StatusServiceUnavailable, "this took too long and was given up; nothing was written")
	case errors.As(err, &database) && database.Code[:2] == "23": // a constraint: someone else was first
		slog.Warn("constraint", "name", database.ConstraintName, "code", database.Code)
		return Problem(http.StatusConflict, "this does not fit what is there by now; nothing was written, look at it once more")
	case errors.As(err, &database) && database.Code[:2] == "22": // a value the database cannot keep
		slog.Warn("value", "code", database.Code)
		return Problem(http.StatusUnprocessableEntity, "a value in this cannot be kept; nothing was written")
	}
	return &unexpected{
		*Problem(http.StatusInternalServerError, "something went wrong here; it was noted and nothing was written"),
		err,
	}
}

// unexpected is a 500 with what went wrong, which stays inside: it is logged with the
// request's id as it leaves.
type unexpected struct {
	huma.ErrorModel
	cause error
}

// ContentType marks it as a problem.
func (*unexpected) ContentType(string) string { return "application/problem+json" }

// WriteProblem answers with a problem outside an operation.
func WriteProblem(w http.ResponseWriter, p huma.StatusError) {
	stamp(w.Header().Get(request.Header), p)
	w.Header().Set("Content-Type", "application/problem+json")
	w.WriteHeader(p.GetStatus())
	if err := json.NewEncoder(w).Encode(p); err != nil {
		slog.Warn("writing a problem", "err", err.Error())
	}
}

// FieldProblem is one wrong field.
func FieldProblem(location, format string, args ...any) error {
	message := fmt.Sprintf(format, args...)
	return Problem(http.StatusUnprocessableEntity, message, &huma.ErrorDetail{Location: location, Message: message})
}
