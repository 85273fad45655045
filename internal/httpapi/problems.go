package httpapi

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log"
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
	for _, f := range list {
		p.Errors = append(p.Errors, &huma.ErrorDetail{Location: prefix + f.Field, Message: f.Reason})
	}
	return p
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
	switch {
	case errors.As(err, &status):
		return status
	case errors.Is(err, store.ErrNotFound), errors.Is(err, pgx.ErrNoRows):
		return problem(http.StatusNotFound, "there is no such thing in this studio")
	case errors.As(err, &database) && database.Code == "42501": // row-level security: the id is another studio's
		return problem(http.StatusNotFound, "there is no such thing in this studio")
	case errors.Is(err, context.Canceled): // nobody waits for the answer any more
		return problem(http.StatusServiceUnavailable, "the request was given up")
	case store.Away(err):
		return problem(http.StatusServiceUnavailable, "the database cannot be reached just now; nothing was written, try again")
	case errors.As(err, &database) && database.Code[:2] == "23": // a constraint: someone else was first
		return problem(http.StatusConflict, "this does not fit what is there by now: "+database.ConstraintName)
	}
	log.Printf("error: %v", err)
	return problem(http.StatusInternalServerError, "something went wrong here; it was noted and nothing was written")
}

func writeProblem(w http.ResponseWriter, p huma.StatusError) {
	w.Header().Set("Content-Type", "application/problem+json")
	w.WriteHeader(p.GetStatus())
	if err := json.NewEncoder(w).Encode(p); err != nil {
		log.Printf("error: writing a problem: %v", err)
	}
}

// fieldProblem is one wrong field.
func fieldProblem(location, format string, args ...any) error {
	message := fmt.Sprintf(format, args...)
	return problem(http.StatusUnprocessableEntity, message, &huma.ErrorDetail{Location: location, Message: message})
}
