package text

import (
	"net/mail"
	"strings"
)

const mostAddress = 200

// IsAddress says whether letters could go there: somebody at a host, nothing else.
func IsAddress(s string) bool {
	at, err := mail.ParseAddress(s)
	return err == nil && len(s) <= mostAddress && at.Address == s && at.Name == ""
}

// Address is an e-mail address as it is kept and compared.
func Address(s string) string { return strings.ToLower(strings.TrimSpace(s)) }
