package e2e

import (
	"fmt"
	"html"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/stance"
	"musculus/internal/figure"
	"musculus/internal/view"
)

// TestFigures draws every movement's figure on one page, at card and at glyph size, by day and by
// night (make figures): what is looked at when the figure has changed. MUSCULUS_FIGURES is the
// folder it goes to; with MUSCULUS_CLOSE set pages of twenty-four are drawn large beside it.
func TestFigures(t *testing.T) {
	dir := os.Getenv("MUSCULUS_FIGURES")
	if dir == "" {
		t.Skip("make figures")
	}
	y, err := effort.NewYardstick(arm.DefaultBody)
	require.NoError(t, err)
	large := os.Getenv("MUSCULUS_CLOSE") != ""
	var cards []string
	for _, m := range movement.Shipped.Movements {
		s := m.Default()
		p, err := s.Profile(y)
		if err != nil {
			p = nil
		}
		reading := stance.Shipped.Read(stance.ByID(stance.Default), s, p)
		name := html.EscapeString(m.ID)
		if large {
			pose := figure.MakePose(s, arm.DefaultBody, p, view.FillOf(&reading))
			cards = append(cards, fmt.Sprintf(`<figure><div class="card two">%s%s</div><figcaption>%s</figcaption></figure>`,
				svgOf(pose.Box, pose.Shapes, &pose.Path), svgOf(pose.Close.Box, pose.Close.Shapes, nil), name))
			continue
		}
		card := figure.MakeCard(s, arm.DefaultBody, view.FillOf(&reading))
		drawn := svgOf(card.Box, card.Shapes, nil)
		cards = append(
			cards,
			fmt.Sprintf(`<figure><div class="card">%s</div><div class="glyph">%s</div><figcaption>%s</figcaption></figure>`, drawn, drawn, name),
		)
	}
	a := startMidweekApp(t)
	p := a.signedIn(t, wren, [2]int64{1440, 900}, "/today")
	if large {
		for n := 0; n*24 < len(cards); n++ {
			p.page(
				figurePage(cards[n*24:min(len(cards), n*24+24)], 6, 190, "light"),
				[2]int64{1260, 900},
				filepath.Join(dir, fmt.Sprintf("close-%d.png", n)),
			)
		}
		return
	}
	p.page(
		figurePage(cards, 12, 96, "light")+figurePage(cards, 12, 96, "dark"),
		[2]int64{1440, 1960},
		filepath.Join(dir, "figures.png"),
	)
}

func startMidweekApp(t *testing.T) *app { a, _ := startMidweek(t); return a }

// page shows a page of its own and takes its picture.
func (p *tab) page(body string, size [2]int64, to string) {
	p.t.Helper()
	base, err := os.ReadFile("../web/src/app/base.css")
	require.NoError(p.t, err)
	palette, err := os.ReadFile("../web/src/app/palette.css")
	require.NoError(p.t, err)
	pose, err := os.ReadFile("../web/src/figures/pose.module.css")
	require.NoError(p.t, err)
	night := regexp.MustCompile(`(?s)prefers-color-scheme: dark\) \{\s*:root \{(.*?)\}`).FindStringSubmatch(string(base))
	require.NotNil(p.t, night)
	inks := regexp.MustCompile(`(?s)@font-face \{.*?\}`).ReplaceAllString(string(base), "")
	file := filepath.Join(p.t.TempDir(), "page.html")
	require.NoError(
		p.t,
		os.WriteFile(file, []byte(`<!doctype html><meta charset="utf-8"><style>`+string(palette)+inks+string(pose)+`
		[data-theme=dark] {`+night[1]+`}
		body { margin: 0; font: 11px sans-serif; }
		.sheet { display: grid; gap: 4px; padding: 8px; background: var(--paper); color: var(--ink); }
		svg { width: 100% } .two { display: flex } .two svg:last-child { width: 40%; border-left: 1px solid var(--hairline) }
		figure { margin: 0; position: relative; background: var(--card); border: 1px solid var(--hairline); }
		.card { padding: 2px; } .glyph { position: absolute; right: 2px; top: 2px; width: 34px; height: 34px; opacity: .95; }
		figcaption { padding: 0 3px 2px; font-size: 9px; overflow: hidden; white-space: nowrap; }
		</style>`+body), 0o644),
	)
	p.do(chromedp.EmulateViewport(size[0], size[1]), chromedp.Navigate("file://"+file))
	time.Sleep(500 * time.Millisecond)
	p.shot(to)
}

func figurePage(cards []string, columns, size int, scheme string) string {
	return fmt.Sprintf(
		`<div class="sheet" style="color-scheme: %s; grid-template-columns: repeat(%d, minmax(0, 1fr))" data-theme=%q><style>.card svg { height: %dpx }</style>%s</div>`,
		scheme,
		columns,
		scheme,
		size,
		strings.Join(cards, "\n"),
	)
}

// svgOf is a figure as the screen draws it.
func svgOf(box [4]float64, shapes []figure.Shape, way *figure.Path) string {
	var b strings.Builder
	fmt.Fprintf(&b, `<svg class="pose" viewBox="%g %g %g %g">`, box[0], box[1], box[2], box[3])
	for i := range shapes {
		s := &shapes[i]
		if s.Class == "letter" {
			at := s.Path.Points[0]
			fmt.Fprintf(&b, `<text x="%g" y="%g" class="letter">%s</text>`, at.X, at.Y, strings.ToUpper(head(s.Head)))
			continue
		}
		style := "stroke:none"
		if s.Class == "belly" {
			style = fmt.Sprintf("fill:color-mix(in srgb, var(--%s) %.0f%%, var(--skin))", head(s.Head), 100*(0.14+0.86*s.Level))
		}
		if s.Width > 0 {
			style = fmt.Sprintf("stroke-width:%g;fill:none;stroke-linecap:round", s.Width)
		}
		fmt.Fprintf(&b, `<path d=%q class=%q style=%q/>`, s.Path.String(), s.Class, style)
	}
	if way != nil {
		fmt.Fprintf(&b, `<path d=%q class="way"/>`, way.String())
	}
	return b.String() + "</svg>"
}

func head(id string) string {
	h, _ := arm.HeadByID(id)
	return strings.ToLower(arm.Heads[h].Code)
}
