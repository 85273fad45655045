package view

import (
	"math"
)

func TenGrams(kg float64) float64 { return math.Round(kg*100) / 100 }
