// Package op holds what every operation of the API shares: the server, who may do
// what, bounds, problems, the remembered, and how a client, a session, a week and a
// set-up are read in a studio. No operation is registered here, and no place is
// imported.
package op
