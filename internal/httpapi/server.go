package httpapi

import (
	"io"
	"io/fs"
	"net/http"
	"net/netip"
	"strings"
	"time"

	"github.com/klauspost/compress/gzip"

	"github.com/alexedwards/scs/pgxstore"
	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"
	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"

	"musculus/internal/core/secret"
	"musculus/internal/httpapi/blocks"
	"musculus/internal/httpapi/checkins"
	"musculus/internal/httpapi/clients"
	"musculus/internal/httpapi/drafts"
	"musculus/internal/httpapi/figures"
	"musculus/internal/httpapi/floor"
	"musculus/internal/httpapi/growth"
	"musculus/internal/httpapi/library"
	"musculus/internal/httpapi/op"
	"musculus/internal/httpapi/people"
	"musculus/internal/httpapi/request"
	"musculus/internal/httpapi/sessions"
	"musculus/internal/httpapi/sheet"
	"musculus/internal/httpapi/stances"
	"musculus/internal/httpapi/studio"
	"musculus/internal/httpapi/trend"
	"musculus/internal/httpapi/trials"
	"musculus/internal/httpapi/week"
	"musculus/internal/live"
	"musculus/internal/photos"
	"musculus/internal/store"
)

// Config is what a server is made of.
type Config struct {
	Store     *store.Store
	Photos    photos.Folder    // where clients' pictures are kept
	Web       fs.FS            // the built front end
	BehindTLS bool             // cookies Secure, strict transport security
	Proxies   []netip.Prefix   // whose word on where a request comes from is taken
	Post      op.Post          // nil: no letters leave
	Address   string           // where people find us, for links
	Now       func() time.Time // nil: the clock
	Live      *live.Hub        // nil: nobody is told while it happens
}

// New makes the whole HTTP side: API, sign-in, static files.
func New(c Config) http.Handler {
	router, _ := build(c)
	return router
}

// OpenAPI returns the description of the API as JSON.
func OpenAPI() ([]byte, error) {
	_, api := build(Config{})
	return api.OpenAPI().MarshalJSON()
}

func build(c Config) (http.Handler, huma.API) {
	huma.DefaultArrayNullable = false // every list is sent, if empty
	s := op.New(c.Store, c.Photos, c.Now)
	s.Post, s.Address = c.Post, strings.TrimSuffix(c.Address, "/")
	s.Sessions.Lifetime = secret.Longest
	s.Sessions.HashTokenInStore = true
	s.Sessions.Cookie.Persist = false // but on a device of one's own
	s.Sessions.Cookie.Name = "musculus"
	if c.BehindTLS {
		s.Sessions.Cookie.Name = "__Host-musculus"
	}
	s.Sessions.Cookie.HttpOnly = true
	s.Sessions.Cookie.SameSite = http.SameSiteLaxMode
	s.Sessions.Cookie.Secure = c.BehindTLS
	s.Sessions.ErrorFunc = func(w http.ResponseWriter, _ *http.Request, err error) { op.WriteProblem(w, op.ProblemOf(err)) }
	if c.Store != nil {
		s.Sessions.Store = pgxstore.New(c.Store.Pool)
	}

	router := chi.NewRouter()
	router.Use(middleware.Recoverer, securityHeaders(c.BehindTLS), http.NewCrossOriginProtection().Handler, compressed())
	var api huma.API
	if c.Live != nil { // before the rest: a stream has no bound of time, and its head does not wait for its end
		router.Group(func(r chi.Router) {
			r.Use(request.From(c.Proxies), s.Sessions.LoadAndSave)
			r.Route("/api/events", func(r chi.Router) { streams(r, s, c.Live) })
		})
	}
	router.Route("/api", func(r chi.Router) {
		r.Use(request.From(c.Proxies), request.Traced, op.Answering, s.Sessions.LoadAndSave)
		r.NotFound(func(w http.ResponseWriter, _ *http.Request) {
			op.WriteProblem(w, op.Problem(http.StatusNotFound, "there is nothing at this address"))
		})
		r.MethodNotAllowed(func(w http.ResponseWriter, _ *http.Request) {
			op.WriteProblem(w, op.Problem(http.StatusMethodNotAllowed, "this address does not take that method"))
		})
		config := huma.DefaultConfig("Musculus", "1")
		config.OpenAPIPath, config.DocsPath, config.SchemasPath = "/openapi", "", ""
		config.CreateHooks = nil // no $schema links in answers
		config.Transformers = append(config.Transformers, op.Stamped)
		config.Formats = map[string]huma.Format{}
		for kind, format := range huma.DefaultConfig("", "").Formats {
			format.Marshal = op.WholeJSON(format.Marshal)
			config.Formats[kind] = format
		}
		config.Servers = []*huma.Server{{URL: "/api"}}
		config.Info.License = &huma.License{Name: "All rights reserved", Identifier: "LicenseRef-Musculus"}
		config.Components.SecuritySchemes = map[string]*huma.SecurityScheme{op.SecurityScheme: {
			Type: "apiKey", In: "cookie", Name: s.Sessions.Cookie.Name, Description: "The cookie that signing in sets.",
		}}
		speakPlans(config.Components.Schemas)
		api = humachi.New(r, config)
		api.UseMiddleware(op.Named, s.Permit(api), op.Bound(api))
		for _, register := range places {
			register(api, s)
		}
	})
	if c.Web != nil {
		router.NotFound(serveWeb(c.Web, router))
	}
	return router, api
}

// compressed sends answers compressed. The level and the writer are the quick ones: an
// answer is made for one reader and read once.
func compressed() func(http.Handler) http.Handler {
	c := middleware.NewCompressor(3)
	c.SetEncoder("gzip", func(w io.Writer, level int) io.Writer {
		z, _ := gzip.NewWriterLevel(w, level) // fails only for a level that does not exist
		return z
	})
	return c.Handler
}

// places are those whose operations the API has.
var places = []func(huma.API, *op.Server){
	people.Register,
	studio.Register,
	library.Register,
	figures.Register,
	stances.Register,
	clients.Register,
	growth.Register,
	sessions.Register,
	floor.Register,
	sheet.Register,
	week.Register,
	drafts.Register,
	trend.Register,
	blocks.Register,
	trials.Register,
	checkins.Register,
}

func securityHeaders(tls bool) func(http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			h := w.Header()
			// Inline styles: the component library writes them as it runs.
			h.Set(
				"Content-Security-Policy",
				"default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; font-src 'self'; object-src 'none'; "+
					"base-uri 'none'; form-action 'self'; frame-ancestors 'none'",
			)
			h.Set("X-Content-Type-Options", "nosniff")
			h.Set("Referrer-Policy", "same-origin")
			h.Set("Cross-Origin-Opener-Policy", "same-origin")
			h.Set("Permissions-Policy", "camera=(), microphone=(), geolocation=()")
			if tls {
				h.Set("Strict-Transport-Security", "max-age=31536000; includeSubDomains")
			}
			next.ServeHTTP(w, r)
		})
	}
}
