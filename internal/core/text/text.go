// Package text says what texts and JSON that come from outside may hold, wherever
// they come in: a request, a file, a template.
package text

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"strconv"
	"strings"
	"unicode"
)

// Fault is what is wrong with a text, "" for nothing: a sign that cannot be kept or
// shown, in one line also a break. No byte of it stands in the answer.
func Fault(s string, oneLine bool) string {
	for _, r := range s {
		switch {
		case r == '\n' || r == '\r' || r == '\t':
			if oneLine && r != '\t' {
				return "must stand in one line"
			}
		case r < ' ' || r == 0x7f || r >= 0x80 && r < 0xa0 || r == '\u2028' || r == '\u2029':
			return fmt.Sprintf("holds a control sign (code %d)", r)
		case unicode.Is(unicode.Cs, r) || r >= 0x202a && r <= 0x202e || r >= 0x2066 && r <= 0x2069:
			return "holds a sign that turns the direction of the text"
		}
	}
	return ""
}

// Limits of JSON from outside.
const (
	mostDepth  = 40
	mostNumber = 1e9
	mostKey    = 100 // characters of a field's name
)

// JSONFault is what is wrong with a document and where, "" and "" for nothing:
// numbers no quantity of ours reaches, texts that cannot be kept, depth. manyLines
// names the fields whose texts may have lines. What is no JSON at all is not told
// here.
func JSONFault(b []byte, manyLines func(field string) bool) (at, reason string) {
	d := json.NewDecoder(bytes.NewReader(b))
	d.UseNumber()
	w := walker{d: d, manyLines: manyLines}
	err := w.value("", "", 0)
	var f *fault
	if errors.As(err, &f) {
		return strings.TrimPrefix(f.at, "."), f.reason
	}
	return "", ""
}

type fault struct{ at, reason string }

func (f *fault) Error() string { return f.at + ": " + f.reason }

type walker struct {
	d         *json.Decoder
	manyLines func(string) bool
}

// value walks one value; field is the name it stands under.
func (w *walker) value(at, field string, depth int) error {
	if depth > mostDepth {
		return &fault{at, fmt.Sprintf("is nested deeper than %d", mostDepth)}
	}
	t, err := w.d.Token()
	if err != nil {
		return err
	}
	switch t := t.(type) {
	case string:
		if why := Fault(t, !w.manyLines(field)); why != "" {
			return &fault{at, why}
		}
	case json.Number:
		if x, err := strconv.ParseFloat(string(t), 64); err != nil || x > mostNumber || x < -mostNumber {
			return &fault{at, "is too large a number"}
		}
	case json.Delim:
		for i := 0; w.d.More(); i++ {
			next, name := fmt.Sprintf("%s[%d]", at, i), field
			if t == '{' {
				key, err := w.d.Token()
				if err != nil {
					return err
				}
				name, _ = key.(string)
				if len([]rune(name)) > mostKey || Fault(name, true) != "" {
					return &fault{at, "has a field whose name is none"}
				}
				next = at + "." + name
			}
			if err := w.value(next, name, depth+1); err != nil {
				return err
			}
		}
		if _, err := w.d.Token(); err != nil && err != io.EOF {
			return err
		}
	}
	return nil
}

// Capital writes the first letter of a text large, where it is a plain one.
func Capital(s string) string {
	if s != "" && s[0] >= 'a' && s[0] <= 'z' {
		return string(s[0]-'a'+'A') + s[1:]
	}
	return s
}
