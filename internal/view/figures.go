package view

import (
	"math"
)

// TenGrams rounds a mass, kg, to what is shown.
func TenGrams(kg float64) float64 { return math.Round(kg*100) / 100 }
