package plan

// Match says for each key of a new list which one of the old list it is, −1 for
// none: first along the longest common order of equal keys, then, of what is left
// between two of those, by position.
func Match(was, is []string) []int {
	out := make([]int, len(is))
	for i := range out {
		out[i] = -1
	}
	// common[i][j] is the longest common order of was[i:] and is[j:].
	common := make([][]int, len(was)+1)
	for i := range common {
		common[i] = make([]int, len(is)+1)
	}
	for i := len(was) - 1; i >= 0; i-- {
		for j := len(is) - 1; j >= 0; j-- {
			if was[i] == is[j] {
				common[i][j] = common[i+1][j+1] + 1
			} else {
				common[i][j] = max(common[i+1][j], common[i][j+1])
			}
		}
	}
	i, j, gapI, gapJ := 0, 0, 0, 0
	pair := func() { // what lies between two that match
		for ; gapI < i && gapJ < j; gapI, gapJ = gapI+1, gapJ+1 {
			out[gapJ] = gapI
		}
	}
	for i < len(was) && j < len(is) {
		switch {
		case was[i] == is[j]:
			pair()
			out[j] = i
			i, j = i+1, j+1
			gapI, gapJ = i, j
		case common[i+1][j] >= common[i][j+1]:
			i++
		default:
			j++
		}
	}
	i, j = len(was), len(is)
	pair()
	return out
}
