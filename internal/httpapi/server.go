package httpapi

import (
	"context"
	"io/fs"
	"net/http"
	"time"

	"github.com/alexedwards/scs/pgxstore"
	"github.com/alexedwards/scs/v2"
	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"
	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"
	"github.com/google/uuid"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/photos"
	"musculus/internal/store"
)

// Config is what a server is made of.
type Config struct {
	Store     *store.Store
	Photos    photos.Folder    // where clients' pictures are kept
	Web       fs.FS            // the built front end
	BehindTLS bool             // cookies Secure, strict transport security
	Now       func() time.Time // nil: the clock
}

// server holds what operations share.
type server struct {
	store      *store.Store
	photos     photos.Folder
	sessions   *scs.SessionManager
	now        func() time.Time
	bodies     *remembered[arm.Body, *effort.Yardstick]
	accounts   *remembered[uuid.UUID, store.Account]
	catalogues *remembered[uuid.UUID, *own]
	lastRead   *remembered[uuid.UUID, *own] // catalogues as they were read last, to be taken again while nothing changed
	shelves    *remembered[shelfKey, *stocked]
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
	s := &server{store: c.Store, photos: c.Photos, sessions: scs.New(), now: c.Now,
		bodies: remember[arm.Body, *effort.Yardstick](mostBodies, 0), accounts: remember[uuid.UUID, store.Account](mostAccounts, rememberAccount),
		catalogues: remember[uuid.UUID, *own](mostStudios, rememberOwn), lastRead: remember[uuid.UUID, *own](mostStudios, 0),
		shelves: remember[shelfKey, *stocked](mostShelves, 0)}
	if s.now == nil {
		s.now = time.Now
	}
	s.sessions.Lifetime = 30 * 24 * time.Hour
	s.sessions.Cookie.Name = "musculus"
	s.sessions.Cookie.HttpOnly = true
	s.sessions.Cookie.SameSite = http.SameSiteLaxMode
	s.sessions.Cookie.Secure = c.BehindTLS
	s.sessions.ErrorFunc = func(w http.ResponseWriter, _ *http.Request, err error) { writeProblem(w, problemOf(err)) }
	if c.Store != nil {
		s.sessions.Store = pgxstore.New(c.Store.Pool)
	}

	router := chi.NewRouter()
	router.Use(middleware.Recoverer, securityHeaders(c.BehindTLS), http.NewCrossOriginProtection().Handler, middleware.Compress(5))
	var api huma.API
	router.Route("/api", func(r chi.Router) {
		r.Use(traced, answering, throttleSignIn, s.sessions.LoadAndSave)
		r.NotFound(func(w http.ResponseWriter, _ *http.Request) {
			writeProblem(w, problem(http.StatusNotFound, "there is nothing at this address"))
		})
		r.MethodNotAllowed(func(w http.ResponseWriter, _ *http.Request) {
			writeProblem(w, problem(http.StatusMethodNotAllowed, "this address does not take that method"))
		})
		config := huma.DefaultConfig("Musculus", "1")
		config.OpenAPIPath, config.DocsPath, config.SchemasPath = "/openapi", "", ""
		config.CreateHooks = nil // no $schema links in answers
		config.Transformers = append(config.Transformers, stamped)
		config.Formats = map[string]huma.Format{}
		for kind, format := range huma.DefaultConfig("", "").Formats {
			format.Marshal = wholeJSON(format.Marshal)
			config.Formats[kind] = format
		}
		config.Servers = []*huma.Server{{URL: "/api"}}
		speakPlans(config.Components.Schemas)
		api = humachi.New(r, config)
		api.UseMiddleware(named, s.permit(api), bound(api))
		s.register(api)
	})
	if c.Web != nil {
		router.NotFound(serveWeb(c.Web))
	}
	return router, api
}

// register adds every operation; each place has its own file.
func (s *server) register(api huma.API) {
	s.registerSignIn(api)
	s.registerStudio(api)
	s.registerCatalogue(api)
	s.registerFitting(api)
	s.registerLibrary(api)
	s.registerOwn(api)
	s.registerStances(api)
	s.registerClients(api)
	s.registerSessions(api)
	s.registerSheet(api)
	s.registerLog(api)
	s.registerVerdicts(api)
	s.registerDossier(api)
	s.registerClientLife(api)
	s.registerRooms(api)
	s.registerMeasures(api)
	s.registerPhotos(api)
	s.registerPriorities(api)
	s.registerPresent(api)
	s.registerWeek(api)
	s.registerIssues(api)
	s.registerProposals(api)
	s.registerPlans(api)
	s.registerTemplates(api)
}

// operation describes one operation; its id must have a row in permissions.
func operation(id, method, path, summary string) huma.Operation {
	if _, ok := permissions[id]; !ok {
		panic("no permissions for operation " + id)
	}
	return huma.Operation{OperationID: id, Method: method, Path: path, Summary: summary, MaxBodyBytes: limitOf(id).body}
}

func securityHeaders(tls bool) func(http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			h := w.Header()
			// Inline styles: the component library writes them as it runs.
			h.Set("Content-Security-Policy", "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; font-src 'self'; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'")
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

// inSession runs do with a client of the studio and one of her sessions.
func (s *server) inSession(ctx context.Context, at SessionPath, do func(*store.Tx, store.Account, *store.Client, store.Session) error) error {
	return s.inClient(ctx, at.Client, func(tx *store.Tx, a store.Account, c *store.Client) error {
		kept, err := tx.Session(ctx, at.Client, at.Session, movements(ctx))
		if err != nil {
			return err
		}
		return do(tx, a, c, kept)
	})
}

// inClient runs do with a client of the studio.
func (s *server) inClient(ctx context.Context, id uuid.UUID, do func(*store.Tx, store.Account, *store.Client) error) error {
	return s.inStudio(ctx, func(tx *store.Tx, a store.Account) error {
		c, err := tx.Client(ctx, id)
		if err != nil {
			return err
		}
		return do(tx, a, &c)
	})
}

// showing answers with what is made of what was loaded: nothing is computed while the
// transaction is open.
func showing[L, V any](ctx context.Context, s *server, load func(*store.Tx, *L) error, show func(*L) (V, error)) (V, error) {
	var loaded L
	if err := s.inStudio(ctx, func(tx *store.Tx, _ store.Account) error { return load(tx, &loaded) }); err != nil {
		var none V
		return none, err
	}
	v, err := show(&loaded)
	return v, problemIf(err)
}

// inStudio runs do in the signed-in account's studio.
func (s *server) inStudio(ctx context.Context, do func(*store.Tx, store.Account) error) error {
	a := accountOf(ctx)
	return problemIf(s.store.In(ctx, a.Studio, func(tx *store.Tx) error { return do(tx, a) }))
}
