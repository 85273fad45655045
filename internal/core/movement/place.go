package movement

import (
	"regexp"
	"strconv"
	"strings"
)

var indexed = regexp.MustCompile(`^([a-z_]+)\[(\d+)\]$`)

// PlaceWords tells the path of a field as people count: "slots[0].rows[1].rest_s" is "slot 1,
// row 2, rest s".
func PlaceWords(path string) string {
	var out []string
	for _, part := range strings.Split(path, ".") {
		if at := indexed.FindStringSubmatch(part); at != nil {
			n, err := strconv.Atoi(at[2])
			if err != nil {
				n = 0
			}
			part = strings.TrimSuffix(at[1], "s") + " " + strconv.Itoa(n+1)
		}
		out = append(out, strings.ReplaceAll(part, "_", " "))
	}
	return strings.Join(out, ", ")
}
