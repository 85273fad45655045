package week_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"musculus/internal/core/dose"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
)

// The one load of a room is questioned for a beginner of whom nothing is known, where the model
// asks for less; for nobody else, and not where the coach has written a load.
func TestTheOneLoadIsQuestionedForABeginner(t *testing.T) {
	asked := func(firstYear bool, kg float64, load *dose.Load) bool {
		tr := aimed(t)
		tr.Aims.FirstYear, tr.Room = firstYear, &person.Room{Name: "Digs", Things: []person.Thing{person.Pairs(kg)}}
		x := slot("kickback_dumbbell", 2, 3)
		x.Rows[0].Load = load
		w := planned(map[int][]plan.Slot{0: {x}})
		for _, f := range audit(&w, tr, nil) {
			if strings.Contains(f.Text, "the one load there is") {
				return true
			}
		}
		return false
	}
	assert.True(t, asked(true, 40, dose.ToFind()))
	assert.True(t, asked(true, 40, nil))
	assert.False(t, asked(true, 40, dose.Kg(40)), "the coach has said it")
	assert.False(t, asked(true, 2, dose.ToFind()), "light enough")
	assert.False(t, asked(false, 40, dose.ToFind()), "no beginner")
}
