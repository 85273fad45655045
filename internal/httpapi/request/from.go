package request

import (
	"context"
	"net/http"
	"net/netip"
	"strings"
)

// from is where a request came from.
type from struct{ address, agent, device string }

type fromKey struct{}

// mostAgent bounds what a browser may say of itself.
const mostAgent = 200

// From notes where requests come from: the address that opened the connection, or what
// a proxy that is trusted says it passed on.
func From(trusted []netip.Prefix) func(http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			agent := r.UserAgent()
			if len(agent) > mostAgent {
				agent = strings.ToValidUTF8(agent[:mostAgent], "")
			}
			f := from{address: peer(r, trusted), agent: strings.ToValidUTF8(strings.ReplaceAll(agent, "\x00", ""), "")}
			for _, name := range []string{DeviceCookie(true), DeviceCookie(false)} {
				if c, err := r.Cookie(name); err == nil && f.device == "" {
					f.device = c.Value
				}
			}
			next.ServeHTTP(w, r.WithContext(context.WithValue(r.Context(), fromKey{}, f)))
		})
	}
}

// peer is the address of whoever asks: the last that no trusted proxy vouches for.
func peer(r *http.Request, trusted []netip.Prefix) string {
	at, err := netip.ParseAddrPort(r.RemoteAddr)
	if err != nil {
		return "unknown"
	}
	address := at.Addr().Unmap()
	through := func(a netip.Addr) bool {
		for _, p := range trusted {
			if p.Contains(a) {
				return true
			}
		}
		return false
	}
	passed := strings.Split(strings.Join(r.Header.Values("X-Forwarded-For"), ","), ",")
	for i := len(passed) - 1; i >= 0 && through(address); i-- {
		before, err := netip.ParseAddr(strings.TrimSpace(passed[i]))
		if err != nil {
			break
		}
		address = before.Unmap()
	}
	if address.Is6() { // who has one has the whole of it
		prefix, _ := address.Prefix(64)
		return prefix.String()
	}
	return address.String()
}

// AddressOf is where a request came from, AgentOf by which browser.
func AddressOf(ctx context.Context) string {
	f, _ := ctx.Value(fromKey{}).(from)
	return f.address
}

// DeviceOf is by what a browser that has signed in before is known again, "" for a stranger's.
func DeviceOf(ctx context.Context) string {
	f, _ := ctx.Value(fromKey{}).(from)
	return f.device
}

// DeviceCookie names the cookie a browser is known again by.
func DeviceCookie(behindTLS bool) string {
	if behindTLS {
		return "__Host-musculus-device"
	}
	return "musculus-device"
}

// AgentOf is the browser a request came by, as it calls itself.
func AgentOf(ctx context.Context) string {
	f, _ := ctx.Value(fromKey{}).(from)
	return f.agent
}
