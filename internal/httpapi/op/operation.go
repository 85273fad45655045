package op

import (
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
)

// terms are those under which an operation is called.
type terms struct {
	who   Who
	body  int64 // bytes that are read
	time  time.Duration
	first bool // also before the second factor that the studio asks for is there
}

// Term changes one of an operation's terms.
type Term func(*terms)

// Reads lets an operation read so many bytes.
func Reads(bytes int64) Term { return func(t *terms) { t.body = bytes } }

// Takes lets an operation take so long.
func Takes(d time.Duration) Term { return func(t *terms) { t.time = d } }

// First lets an operation be called before a second factor that the studio asks for is there.
func First() Term { return func(t *terms) { t.first = true } }

const termsKey = "terms"

// Operation describes one operation with its terms: who may call it, and how much it
// reads and how long it may take where that is more than usual. It panics when nobody
// is named.
func Operation(id string, who Who, method, path, summary string, more ...Term) huma.Operation {
	if who == nil {
		panic("nobody may call operation " + id)
	}
	t := &terms{who: who, body: MostBody, time: mostTime}
	for _, change := range more {
		change(t)
	}
	return huma.Operation{
		Security:     security(who),
		Errors:       problems(who, method, path),
		OperationID:  id,
		Method:       method,
		Path:         path,
		Summary:      summary,
		MaxBodyBytes: t.body,
		// One that passes while somebody works ends the whole connection, and what is asked by it next.
		BodyReadTimeout: t.time + slowLine, Metadata: map[string]any{termsKey: t},
	}
}

// SecurityScheme is how an operation that is not for anybody knows who asks.
const SecurityScheme = "session"

// security says so in the API's description: a session's cookie, or nothing.
func security(who Who) []map[string][]string {
	if len(who) == 0 {
		return []map[string][]string{{}}
	}
	return []map[string][]string{{SecurityScheme: {}}}
}

// problems are the statuses an operation may answer with besides what it is for.
func problems(who Who, method, path string) (out []int) {
	if len(who) > 0 {
		out = append(out, http.StatusUnauthorized, http.StatusForbidden)
	}
	if strings.Contains(path, "{") {
		out = append(out, http.StatusNotFound)
	}
	if method != http.MethodGet {
		out = append(out, http.StatusConflict, http.StatusRequestEntityTooLarge)
	}
	return append(out, http.StatusUnprocessableEntity, http.StatusServiceUnavailable)
}

// termsOf panics on an operation that was not made by Operation: it has no terms, so
// that nobody could say who may call it.
func termsOf(o *huma.Operation) *terms { return o.Metadata[termsKey].(*terms) }
