// Package movement holds the catalogue: movements with the settings a coach may
// turn, their limits and steps, and the set-ups and names that follow from them.
//
// The catalogue itself is data (data/*.yaml), checked when it is loaded. A
// set-up is a movement with its settings snapped to their steps; its name and
// its series key are composed here and nowhere else. What a set-up gives is
// computed by package effort; what suits a person is decided further up.
package movement
