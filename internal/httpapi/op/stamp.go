package op

import (
	"log/slog"

	"github.com/danielgtaylor/huma/v2"

	"musculus/internal/httpapi/request"
)

// Named puts the operation into the request's trace.
func Named(ctx huma.Context, next func(huma.Context)) {
	request.TraceOf(ctx.Context()).Operation = ctx.Operation().OperationID
	next(ctx)
}

// stamp puts the request's id into a problem, whichever of them it is.
func stamp(id string, v any) {
	at := "/requests/" + id
	switch p := v.(type) {
	case *huma.ErrorModel:
		p.Instance = at
	case *AskProblem:
		p.Instance = at
	case *StaleProblem:
		p.Instance = at
	case *ClashProblem:
		p.Instance = at
	case *unexpected:
		p.Instance = at
		slog.Error("unexpected", "id", id, "err", p.cause.Error())
	}
}

// Stamped stamps what an operation answers.
func Stamped(ctx huma.Context, _ string, v any) (any, error) {
	stamp(request.TraceOf(ctx.Context()).ID, v)
	return v, nil
}

// refuser answers a request with a problem before its operation is reached.
func refuser(api huma.API, ctx huma.Context) func(huma.StatusError) {
	return func(p huma.StatusError) {
		stamp(request.TraceOf(ctx.Context()).ID, p)
		ctx.SetHeader("Content-Type", "application/problem+json")
		ctx.SetStatus(p.GetStatus())
		_ = api.Marshal(ctx.BodyWriter(), "application/json", p)
	}
}
