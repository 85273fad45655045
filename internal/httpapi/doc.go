// Package httpapi is the JSON API and the way in: operations by place, sign-in,
// permissions and errors. It asks the core and the store and decides nothing.
package httpapi
