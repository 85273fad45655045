package op_test

import (
	"context"
	"io"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"
	"github.com/go-chi/chi/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/httpapi/op"
)

// An answer that takes longer than a body is usually waited for ends neither itself nor what is
// asked next by the same connection.
func TestASlowAnswerSpoilsNothing(t *testing.T) {
	t.Parallel()
	router := chi.NewMux()
	api := humachi.New(router, huma.DefaultConfig("slow", "1"))
	api.UseMiddleware(op.Bound(api))
	type body struct{ Body struct{ Wait float64 } }
	huma.Register(api, op.Operation("slow", op.Everybody, http.MethodPost, "/slow", "Waits"),
		func(ctx context.Context, in *body) (*body, error) {
			select {
			case <-ctx.Done():
				return nil, ctx.Err()
			case <-time.After(time.Duration(in.Body.Wait * float64(time.Second))):
				return in, ctx.Err()
			}
		})
	server := httptest.NewServer(router)
	defer server.Close()
	for _, wait := range []string{"5.3", "0", "0"} {
		r, err := server.Client().Post(server.URL+"/slow", "application/json", strings.NewReader(`{"Wait": `+wait+`}`))
		require.NoError(t, err)
		b, err := io.ReadAll(r.Body)
		require.NoError(t, err)
		r.Body.Close()
		assert.Equal(t, http.StatusOK, r.StatusCode, "%s s: %s", wait, b)
	}
}
