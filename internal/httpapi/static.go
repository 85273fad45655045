package httpapi

import (
	"bytes"
	"encoding/json"
	"io/fs"
	"net/http"
	"path"
	"regexp"
	"strings"
	"sync"

	"github.com/klauspost/compress/gzip"

	"musculus/internal/httpapi/op"
)

// serveWeb serves the front end: files by name, everything else the page
// itself, since places have addresses of their own.
func serveWeb(web fs.FS, api http.Handler) http.HandlerFunc {
	files := http.FileServerFS(web)
	var packed sync.Map // by name: assets as small as they get, packed once
	return func(w http.ResponseWriter, r *http.Request) {
		if r.Method != http.MethodGet && r.Method != http.MethodHead {
			op.WriteProblem(w, op.Problem(http.StatusMethodNotAllowed, "this address does not take that method"))
			return
		}
		name := strings.TrimPrefix(path.Clean(r.URL.Path), "/")
		if info, err := fs.Stat(web, name); name != "" && err == nil && !info.IsDir() {
			if strings.HasPrefix(name, "assets/") { // named by their content
				w.Header().Set("Cache-Control", "public, max-age=31536000, immutable")
				if kind := packs[path.Ext(name)]; kind != "" && strings.Contains(r.Header.Get("Accept-Encoding"), "gzip") {
					b, ok := packed.Load(name)
					if !ok {
						b, _ = packed.LoadOrStore(name, pack(web, name))
					}
					h := w.Header()
					h.Set("Content-Type", kind)
					h.Set("Content-Encoding", "gzip")
					h.Set("Vary", "Accept-Encoding")
					_, _ = w.Write(b.([]byte))
					return
				}
			}
			if name == workerFile { // a new one is seen at the next visit
				w.Header().Set("Cache-Control", "no-cache")
			}
			files.ServeHTTP(w, r)
			return
		}
		if link := linkManifest.FindStringSubmatch(name); link != nil {
			writeManifest(w, link[1])
			return
		}
		if strings.HasPrefix(name, "assets/") {
			http.NotFound(w, r)
			return
		}
		file, keep, token := "index.html", "no-cache", ""
		if strings.HasPrefix(name, "s/") { // a client's page is one of its own, and nothing of it stays in a cache
			file, keep, token = "link.html", "no-store", strings.TrimPrefix(name, "s/")
		}
		if name == "floor" || strings.HasPrefix(name, "floor/") { // the coach's floor is as small as the client's page
			file = "link.html"
		}
		page, err := fs.ReadFile(web, file)
		if err != nil {
			http.NotFound(w, r)
			return
		}
		if plainToken.MatchString(token) {
			page = ahead(page, api, r, token)
		}
		w.Header().Set("Cache-Control", keep)
		w.Header().Set("Content-Type", "text/html; charset=utf-8")
		if name != "" && !pages.MatchString(name) {
			w.WriteHeader(http.StatusNotFound) // the page itself says that there is nothing here
		}
		_, _ = w.Write(page)
	}
}

// workerFile is what keeps the small pages on a device.
const workerFile = "sw.js"

// linkManifest is how a client's page is installed: it opens at her link.
var linkManifest = regexp.MustCompile(`^s/([A-Za-z0-9_-]+)/app\.webmanifest$`)

func writeManifest(w http.ResponseWriter, token string) {
	w.Header().Set("Content-Type", "application/manifest+json")
	w.Header().Set("Cache-Control", "no-store")
	at := "/s/" + token
	_ = json.NewEncoder(w).Encode(map[string]any{
		"name": "Your sessions", "short_name": "Sessions", "start_url": at, "scope": at, "display": "standalone",
		"background_color": "#f7f4ee", "theme_color": "#1e2a33",
		"icons": []map[string]string{{"src": "/icon.svg", "sizes": "any", "type": "image/svg+xml"}},
	})
}

// plainToken is one that needs no quoting in an address.
var plainToken = regexp.MustCompile(`^[A-Za-z0-9_-]+$`)

// packs are the files that are sent packed, by their endings.
var packs = map[string]string{".js": "text/javascript; charset=utf-8", ".css": "text/css; charset=utf-8"}

// pack is a file of the front end as small as it gets: it is asked for once a reader
// and made once for all.
func pack(web fs.FS, name string) []byte {
	plain, err := fs.ReadFile(web, name)
	if err != nil { // it was there a moment ago: the files are part of the program
		panic(err)
	}
	var out bytes.Buffer
	z, _ := gzip.NewWriterLevel(&out, gzip.BestCompression)
	_, _ = z.Write(plain) // into memory: it cannot fail
	_ = z.Close()
	return out.Bytes()
}

// pages are the addresses the front end has something at; its router (web/src/app)
// is held against them by a test.
var pages = regexp.MustCompile(
	`^(?:s/[^/]+|once/[^/]+|floor(?:/[^/]+/[^/]+)?|forgotten|me|clients(?:/[^/]+(?:/(?:dossier(?:/(?:measures|now))?|priorities|week(?:/[^/]+)?|sheet(?:/[^/]+)?|log(?:/[^/]+)?|trend))?)?|today|fitting|library(?:/ours(?:/[^/]+)?)?|stances|studio(?:/(?:people|security))?)$`,
)
