package op

import (
	"context"
	"net/http"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"musculus/internal/httpapi/request"
	"musculus/internal/store"
)

// Who may call an operation.
type Who []store.Role

// Those who may; Anybody needs no sign-in.
var (
	Anybody   = Who{}
	Owners    = Who{store.Owner}
	Planners  = Who{store.Owner, store.Coach}
	Everybody = Who{store.Owner, store.Coach, store.Assistant}
)

type accountKey struct{}

// AccountOf is who is signed in; the zero account where an operation needs nobody.
func AccountOf(ctx context.Context) store.Account {
	a, _ := ctx.Value(accountKey{}).(store.Account)
	return a
}

// accountHeader names the account that a page was opened by: what one account typed
// is never taken for the next one's, who signed in on the same device meanwhile.
const accountHeader = "X-Account"

// Permit lets an operation through only for those it was registered for.
func (s *Server) Permit(api huma.API) func(huma.Context, func(huma.Context)) {
	return func(ctx huma.Context, next func(huma.Context)) {
		roles := termsOf(ctx.Operation()).who
		if len(roles) == 0 {
			next(ctx)
			return
		}
		refuse := refuser(api, ctx)
		account, err := s.SignedIn(ctx.Context())
		if err == nil {
			request.TraceOf(ctx.Context()).Studio = account.Studio.String()
		}
		switch meant := ctx.Header(accountHeader); {
		case err != nil:
			refuse(ProblemOf(err))
		case meant != "" && meant != account.ID.String():
			refuse(Problem(http.StatusUnauthorized, "somebody else is signed in by now; nothing was kept"))
		case !slices.Contains(roles, account.Role):
			s.NoteSecurity(ctx.Context(), account.Studio, store.SecurityEvent{
				Account: &account.ID, What: "was refused", About: ctx.Operation().OperationID,
			})
			refuse(Problem(http.StatusForbidden, "only "+mayWords(roles)+" may do this"))
		case account.Lacks && !termsOf(ctx.Operation()).first:
			refuse(Problem(http.StatusForbidden, "this studio asks for a second factor: set it up under your name in the head"))
		default:
			own, err := s.OwnOfStudio(ctx.Context(), account.Studio)
			if err != nil {
				refuse(ProblemOf(err))
				return
			}
			next(huma.WithContext(ctx, InStudioOf(ctx.Context(), account, own)))
		}
	}
}

// mayWords names who may do something: "an owner or a coach".
func mayWords(roles Who) string {
	words := make([]string, len(roles))
	for i, r := range roles {
		words[i] = map[store.Role]string{store.Owner: "an owner", store.Coach: "a coach", store.Assistant: "an assistant"}[r]
	}
	return strings.Join(words, " or ")
}

// InStudioOf is a context in which an account works in its studio.
func InStudioOf(ctx context.Context, a store.Account, own *Own) context.Context {
	return store.Under(context.WithValue(context.WithValue(ctx, accountKey{}, a), ownKey{}, own), own.Zone, own.Prefers)
}
