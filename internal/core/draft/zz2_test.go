package draft

import (
	"fmt"
	"os"
	"strings"
	"testing"
	"time"
)

func TestZZ3(t *testing.T) {
	for i := range 22 {
		cl, ask, _ := Made(1, i)
		p := Build(cl, Stock(cl), ask)
		b, _ := os.ReadFile(fmt.Sprintf("/tmp/lp/%d.out", i))
		obj := ""
		for _, line := range strings.Split(string(b), "\n") {
			if strings.HasPrefix(line, "Objective value") || strings.HasPrefix(line, "Lower bound") || strings.HasPrefix(line, "Result") {
				obj += strings.Join(strings.Fields(strings.SplitN(line+"-:", "-", 2)[0]), " ") + strings.TrimPrefix(line, "Result -") + ";"
			}
		}
		fmt.Printf("%2d ", i)
		for _, n := range []int{100, 500, 1000} {
			for seed := range uint64(2) {
				a := time.Now()
				o := Search(p.Problem, Robust, Effort{Steps: n, Seed: seed}, nil)
				fmt.Printf(" %.3f (%v)", o.Objective, time.Since(a).Round(time.Millisecond))
			}
		}
		fmt.Println(" |", obj)
	}
}
