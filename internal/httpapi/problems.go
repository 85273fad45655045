package httpapi

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"

	"musculus/internal/core/movement"
	"musculus/internal/store"
)

// Errors leave as problem+json (RFC 9457); what is wrong with a field is told
// at the field ("body.slots[1].dose.reserve").

func problem(status int, detail string, fields ...*huma.ErrorDetail) *huma.ErrorModel {
	return &huma.ErrorModel{Status: status, Title: http.StatusText(status), Detail: detail, Errors: fields}
}

// faults tells validation errors of the core, the prefix being where in the
// request the checked part was.
func faults(prefix string, list []*movement.FieldError) error {
	if len(list) == 0 {
		return nil
	}
	p := problem(http.StatusUnprocessableEntity, list[0].Reason)
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
	Question string `json:"question"`
	Field    string `json:"field"`
	Needs    string `json:"needs" enum:"sure,reason"`
}

// What answers a question: the coach is sure, or gives a reason.
const (
	needsSure   = "sure"
	needsReason = "reason"
)

// ContentType marks it as a problem.
func (*AskProblem) ContentType(string) string { return "application/problem+json" }

// ask asks back about one field.
func ask(location, question string) error {
	p := problem(http.StatusUnprocessableEntity, question, &huma.ErrorDetail{Location: location, Message: question})
	return &AskProblem{*p, Ask{Question: question, Field: location, Needs: needsSure}}
}

// problemIf turns an error into a problem, nil into nil.
func problemIf(err error) error {
	if err == nil {
		return nil
	}
	return problemOf(err)
}

func problemOf(err error) huma.StatusError {
	var status huma.StatusError
	var database *pgconn.PgError
	var stale *store.StaleMeasuring
	var field *movement.FieldError
	switch {
	case errors.As(err, &status):
		return status
	case errors.As(err, &field): // what is kept, or was sent, cannot be read any more
		return problem(http.StatusUnprocessableEntity, field.Reason, &huma.ErrorDetail{Location: "body." + field.Field, Message: field.Reason})
	case errors.Is(err, store.ErrNotFound), errors.Is(err, pgx.ErrNoRows):
		return problem(http.StatusNotFound, "there is no such thing in this studio")
	case errors.As(err, &database) && database.Code == "42501": // row-level security: the id is another studio's
		return problem(http.StatusNotFound, "there is no such thing in this studio")
	case errors.Is(err, context.Canceled): // nobody waits for the answer any more
		return problem(http.StatusServiceUnavailable, "the request was given up")
	case store.Away(err):
		return problem(http.StatusServiceUnavailable, "the database cannot be reached just now; nothing was written, try again")
	case errors.Is(err, store.ErrTaken):
		return problem(http.StatusConflict, "this id was used for something else; nothing was kept, send it again under an id of its own")
	case errors.As(err, &stale):
		return problem(http.StatusConflict, "this was "+stale.Error()+"; nothing was written, look at it once more")
	case errors.Is(err, context.DeadlineExceeded):
		return problem(http.StatusServiceUnavailable, "this took too long and was given up; nothing was written")
	case errors.As(err, &database) && database.Code[:2] == "23": // a constraint: someone else was first
		slog.Warn("constraint", "name", database.ConstraintName, "code", database.Code)
		return problem(http.StatusConflict, "this does not fit what is there by now; nothing was written, look at it once more")
	case errors.As(err, &database) && database.Code[:2] == "22": // a value the database cannot keep
		slog.Warn("value", "code", database.Code)
		return problem(http.StatusUnprocessableEntity, "a value in this cannot be kept; nothing was written")
	}
	return &unexpected{*problem(http.StatusInternalServerError, "something went wrong here; it was noted and nothing was written"), err}
}

// unexpected is a 500 with what went wrong, which stays inside: it is logged with the
// request's id as it leaves.
type unexpected struct {
	huma.ErrorModel
	cause error
}

// ContentType marks it as a problem.
func (*unexpected) ContentType(string) string { return "application/problem+json" }

func writeProblem(w http.ResponseWriter, p huma.StatusError) {
	stamp(w.Header().Get(requestHeader), p)
	w.Header().Set("Content-Type", "application/problem+json")
	w.WriteHeader(p.GetStatus())
	if err := json.NewEncoder(w).Encode(p); err != nil {
		slog.Warn("writing a problem", "err", err.Error())
	}
}

// fieldProblem is one wrong field.
func fieldProblem(location, format string, args ...any) error {
	message := fmt.Sprintf(format, args...)
	return problem(http.StatusUnprocessableEntity, message, &huma.ErrorDetail{Location: location, Message: message})
}
