// Package figure is the geometry of the three pictures: the slice, the ribbon
// and the pose figure, with the text that stands for each. Paths are SVG path
// data in a box of their own; the front end and the paper draw the same ones.
// Nothing here decides anything: values come from the core.
package figure

import (
	"math"
	"strconv"
)

// Point is a point of a picture's box: x to the right, y down.
type Point struct {
	X float64 `json:"x"`
	Y float64 `json:"y"`
}

func round(x float64) float64 { return math.Round(x*1e4)/1e4 + 0 } // no −0

func number(x float64) string { return strconv.FormatFloat(round(x), 'f', -1, 64) }
