package movement_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"musculus/internal/core/movement"
)

func TestPlacesAreToldAsPeopleCount(t *testing.T) {
	for path, says := range map[string]string{
		"slots[0].rows[1].rest_s":          "slot 1, row 2, rest s",
		"combos[2].between_s":              "combo 3, between s",
		"name":                             "name",
		"slots[99999999999999999999].rows": "slot 1, rows",
	} {
		assert.Equal(t, says, movement.PlaceWords(path))
	}
}
