// Package demo is the made-up studio that shows the product: the Saltmarsh
// Players, their coach, rooms, clients, planned sessions and a few logged ones.
// Everyone in it is invented.
package demo
