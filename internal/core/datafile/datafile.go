// Package datafile reads the lists of entries that the program's knowledge is
// written in, and says of every fault at once in which file, line, entry and
// field it is.
package datafile

import (
	"errors"
	"fmt"
	"reflect"
	"slices"
	"strings"

	"github.com/goccy/go-yaml"
	"github.com/goccy/go-yaml/ast"
	"github.com/goccy/go-yaml/parser"
)

// Fault is one thing wrong in a file. Line counts from 1; Entry and Field are
// empty where the file as a whole cannot be read.
type Fault struct {
	File   string
	Line   int
	Entry  string // "3 (curl_reclined)"
	Field  string
	Reason string
}

func (f *Fault) Error() string {
	text := fmt.Sprintf("%s:%d", f.File, f.Line)
	if f.Entry != "" {
		text += ": entry " + f.Entry
	}
	if f.Field != "" {
		text += ": " + f.Field
	}
	return text + ": " + f.Reason
}

// Entry is one read entry; Whole is false when one of its fields could not be read.
type Entry[T any] struct {
	Row   T
	ID    string
	Whole bool
	file  string
	at    string
	line  int
	lines map[string]int // of its fields
}

// Fault says what is wrong with a field of the entry. A field may be a path
// ("settings.bench"); the line is that of its first part.
func (e *Entry[T]) Fault(field, format string, args ...any) *Fault {
	first, _, _ := strings.Cut(field, ".")
	line := e.lines[first]
	if line == 0 {
		line = e.line
	}
	return &Fault{e.file, line, e.at, field, fmt.Sprintf(format, args...)}
}

// Join makes one error of many faults; nil of none.
func Join(faults []*Fault) error {
	var all []error
	for _, f := range faults {
		all = append(all, f)
	}
	return errors.Join(all...)
}

// Read reads a file's list of entries. T is a struct with yaml tags; its field
// "id" names the entry. Unknown fields, values of the wrong kind and fields
// written twice are faults.
func Read[T any](file string, content []byte) ([]Entry[T], []*Fault) {
	tree, err := parser.ParseBytes(content, 0)
	if err != nil {
		return nil, []*Fault{whole(file, err)}
	}
	var out []Entry[T]
	var faults []*Fault
	for _, doc := range tree.Docs {
		if doc.Body == nil || doc.Body.Type() == ast.CommentType {
			continue
		}
		list, ok := doc.Body.(*ast.SequenceNode)
		if !ok {
			return nil, append(faults, &Fault{File: file, Line: lineOf(doc.Body), Reason: "not a list of entries"})
		}
		for _, node := range list.Values {
			e, wrong := readEntry[T](file, node, len(out)+1)
			out, faults = append(out, e), append(faults, wrong...)
		}
	}
	return out, faults
}

func readEntry[T any](file string, node ast.Node, number int) (Entry[T], []*Fault) {
	e := Entry[T]{file: file, at: fmt.Sprint(number), line: lineOf(node), lines: map[string]int{}, Whole: true}
	fields, ok := node.(ast.MapNode)
	if !ok {
		e.Whole = false
		return e, []*Fault{e.Fault("", "not a list of fields")}
	}
	row := reflect.ValueOf(&e.Row).Elem()
	var faults []*Fault
	for i := fields.MapRange(); i.Next(); {
		name := strings.TrimSpace(i.Key().GetToken().Value)
		if e.lines[name] != 0 {
			faults = append(faults, e.Fault(name, "is there twice"))
			continue
		}
		e.lines[name] = lineOf(i.Key())
		to, ok := fieldOf(row, name)
		if !ok {
			faults = append(faults, e.Fault(name, "there is no such field"))
			continue
		}
		if to.Kind() == reflect.Pointer { // the reader fills what is there, it makes nothing
			to.Set(reflect.New(to.Type().Elem()))
			to = to.Elem()
		}
		if err := yaml.NodeToValue(i.Value(), to.Addr().Interface(), yaml.Strict()); err != nil {
			f := whole(file, err)
			f.Entry, f.Field = e.at, name
			f.Line = max(f.Line, e.lines[name])
			faults = append(faults, f)
		}
	}
	if id, ok := fieldOf(row, "id"); ok && id.String() != "" {
		e.ID = id.String()
		e.at = fmt.Sprintf("%d (%s)", number, e.ID)
		for _, f := range faults {
			f.Entry = e.at
		}
	}
	e.Whole = len(faults) == 0
	return e, faults
}

// fieldOf finds a struct's field by its yaml tag.
func fieldOf(row reflect.Value, name string) (reflect.Value, bool) {
	for i := range row.NumField() {
		if tag, _, _ := strings.Cut(row.Type().Field(i).Tag.Get("yaml"), ","); tag == name {
			return row.Field(i), true
		}
	}
	return reflect.Value{}, false
}

// Fields lists the yaml tags of a struct, sorted: what an entry may say.
func Fields(row any) (out []string) {
	t := reflect.TypeOf(row)
	for i := range t.NumField() {
		if tag, _, _ := strings.Cut(t.Field(i).Tag.Get("yaml"), ","); tag != "" {
			out = append(out, tag)
		}
	}
	slices.Sort(out)
	return out
}

func lineOf(n ast.Node) int {
	if token := n.GetToken(); token != nil && token.Position != nil {
		return token.Position.Line
	}
	return 0
}

// whole takes place and reason out of a reader's error.
func whole(file string, err error) *Fault {
	f := &Fault{File: file, Reason: err.Error()}
	var placed yaml.Error
	if errors.As(err, &placed) {
		f.Reason = placed.GetMessage()
		if token := placed.GetToken(); token != nil && token.Position != nil {
			f.Line = token.Position.Line
		}
	}
	return f
}
