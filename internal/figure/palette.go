package figure

import (
	"fmt"
	"strings"

	"musculus/internal/core/arm"
)

// Colour is one of the pictures' colours, by its name on screen and on paper.
type Colour struct{ Name, Hex string }

// Palette is what the pictures are painted with, on screen and on paper alike.
var Palette = []Colour{
	{"ground", "#efe8dc"}, {"ink", "#1e2530"}, {"soft", "#5d6470"}, {"mark", "#e0b45a"}, {"ribbon", "#26323d"},
	{"figure", "#d9cfbc"}, {"far", "#c6baa2"}, {"hair", "#6d6353"}, {"skin", "#efe6d6"}, {"bone", "#fffaf0"}, {"tendon", "#b3a58c"},
	{"bench", "#a8946f"}, {"frame", "#cabb9e"}, {"arm", "#26323d"}, {"ghost", "#b9b4aa"}, {"ghost-weight", "#98a8a6"},
	{"weight", "#0f6b66"},
	{"bl", "#b9602a"}, {"bs", "#c98f22"}, {"ba", "#7c8b3b"}, {"bd", "#3e7a5e"}, {"tl", "#38599c"}, {"ta", "#76589e"}, {"tm", "#5b82aa"},
}

// Paint is a colour of the palette, ink for a name it has not.
func Paint(name string) string {
	for _, c := range Palette {
		if c.Name == name {
			return c.Hex
		}
	}
	return Paint("ink")
}

// HeadPaint is a head's colour.
func HeadPaint(id string) string {
	h, ok := arm.HeadByID(id)
	if !ok {
		return Paint("ink")
	}
	return Paint(strings.ToLower(arm.Heads[h].Code))
}

// PaletteCSS is the palette as the front end's style sheet.
func PaletteCSS() string {
	var b strings.Builder
	b.WriteString("/* Made by make generate from internal/figure/palette.go. */\n:root {\n")
	for _, c := range Palette {
		fmt.Fprintf(&b, "  --%s: %s;\n", c.Name, c.Hex)
	}
	b.WriteString("}\n")
	return b.String()
}

// HatchOf is the direction in which a head is hatched, degrees: on the arm as on the slice.
func HatchOf(id string) float64 {
	for _, r := range rightSlice.Regions {
		if r.Head == id {
			return r.Hatch
		}
	}
	return 0
}

// rightSlice is the right arm's slice, whose hatches all pictures take.
var rightSlice = MakeSlice(false)
