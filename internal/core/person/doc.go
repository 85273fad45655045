// Package person holds what is particular to a client and the place she trains
// in: rooms with their real load steps, how a load is carried, and the caps
// that screening sets. It does not know doses or sessions.
package person
