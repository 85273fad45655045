package mail

import (
	"context"
	"html/template"
	"io"
	"mime"
	"mime/quotedprintable"
	"net"
	"net/http"
	"net/mail"
	"strings"
	"sync"
	"time"

	"github.com/emersion/go-smtp"
)

// Box is a letter-box: a real server that takes letters, delivers none, and shows what
// came on a page of its own. It stands in for a mail server on this machine only.
type Box struct {
	mu      sync.Mutex
	letters []Came
	server  *smtp.Server
	Address string // where it takes letters, for New
}

// Came is a letter as it came.
type Came struct {
	ID, From, To, Subject, Says string
	At                          time.Time
}

// mostKept bounds what a letter-box holds.
const mostKept = 500

// OpenBox opens a letter-box at an address of this machine; port 0: any that is free.
func OpenBox(listen string) (*Box, error) {
	listener, err := net.Listen("tcp", listen)
	if err != nil {
		return nil, err
	}
	b := &Box{Address: "smtp://" + listener.Addr().String() + "?from=studio@saltmarsh.example"}
	b.server = smtp.NewServer(smtp.BackendFunc(func(*smtp.Conn) (smtp.Session, error) { return &visit{box: b}, nil }))
	b.server.Domain, b.server.AllowInsecureAuth = "localhost", true
	b.server.ReadTimeout, b.server.WriteTimeout, b.server.MaxMessageBytes = time.Minute, time.Minute, 1<<20
	go func() { _ = b.server.Serve(listener) }()
	return b, nil
}

// Close shuts it; what came stays to be read.
func (b *Box) Close() error { return b.server.Close() }

// Letters are what came, the latest first.
func (b *Box) Letters() []Came {
	b.mu.Lock()
	defer b.mu.Unlock()
	out := make([]Came, len(b.letters))
	for i, l := range b.letters {
		out[len(out)-1-i] = l
	}
	return out
}

// visit is one connection that hands letters over.
type visit struct {
	box      *Box
	from, to string
}

func (v *visit) Reset()        { v.from, v.to = "", "" }
func (v *visit) Logout() error { return nil }

func (v *visit) Mail(from string, _ *smtp.MailOptions) error {
	v.from = from
	return nil
}

func (v *visit) Rcpt(to string, _ *smtp.RcptOptions) error {
	v.to = to
	return nil
}

func (v *visit) Data(r io.Reader) error {
	m, err := mail.ReadMessage(r)
	if err != nil {
		return err
	}
	body := m.Body
	if strings.EqualFold(m.Header.Get("Content-Transfer-Encoding"), "quoted-printable") {
		body = quotedprintable.NewReader(body)
	}
	says, err := io.ReadAll(body)
	if err != nil {
		return err
	}
	subject := m.Header.Get("Subject")
	if plain, err := new(mime.WordDecoder).DecodeHeader(subject); err == nil {
		subject = plain
	}
	v.box.mu.Lock()
	defer v.box.mu.Unlock()
	v.box.letters = append(v.box.letters, Came{m.Header.Get("Message-Id"), v.from, v.to, subject, string(says), time.Now()})
	if extra := len(v.box.letters) - mostKept; extra > 0 {
		v.box.letters = v.box.letters[extra:]
	}
	return nil
}

var boxPage = template.Must(template.New("").Parse(`<!doctype html><html lang="en"><meta charset="utf-8"><title>Letter-box</title>
<style>body{font:16px/1.5 Georgia,serif;max-width:720px;margin:32px auto;padding:0 16px;background:#f7f4ee;color:#1e2530}
article{background:#fffdf9;border-top:3px solid #0f6b66;padding:10px 18px;margin:14px 0}h1{font-size:24px}h2{font-size:18px;margin:0}
p{margin:0;color:#5f5a4f}pre{font:15px/1.5 Georgia,serif;white-space:pre-wrap;overflow-wrap:anywhere}</style>
<main><h1>Letter-box</h1><p>What would have been sent by mail, on this machine only.</p>
{{range .}}<article><h2>{{.Subject}}</h2><p>to {{.To}}, {{.At.Format "15:04:05"}}</p><pre>{{.Says}}</pre></article>{{else}}<p>Nothing yet.</p>{{end}}</main></html>`))

// ServeHTTP shows what came.
func (b *Box) ServeHTTP(w http.ResponseWriter, _ *http.Request) {
	w.Header().Set("Content-Type", "text/html; charset=utf-8")
	_ = boxPage.Execute(w, b.Letters())
}

// Wait waits until so many letters have come to an address; it returns them, the latest
// first, or what there is when ctx is over.
func (b *Box) Wait(ctx context.Context, to string, n int) []Came {
	for {
		var of []Came
		for _, l := range b.Letters() {
			if strings.EqualFold(l.To, to) {
				of = append(of, l)
			}
		}
		if len(of) >= n {
			return of
		}
		select {
		case <-ctx.Done():
			return of
		case <-time.After(20 * time.Millisecond):
		}
	}
}
